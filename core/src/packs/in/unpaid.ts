import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** On which return, by choice: the law leaves it open. */
const WHEN = [
  ["next", "following"],
  ["same", "containing"],
] as const;

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  ...WHEN.map(([value, falls]): UnpaidRule => ({
    id: "unpaid-input",
    name: "Credit of bills unpaid for 180 days",
    direction: "purchase",
    from: "supply",
    after: { days: 180 },
    falls,
    option: ["rule37", value],
    relief: "REV",
    back: "RCL",
    says: "180 days after the invoice, the credit of the unpaid part is reversed, and comes back on payment",
    source: "CGST s.16(2), Rules R.37",
  })),
];
