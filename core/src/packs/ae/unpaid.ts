import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** On which return, by choice: the law leaves it open. */
const WHEN = [
  ["next", "following"],
  ["same", "containing"],
] as const;

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debt relief",
    direction: "sale",
    from: "supply",
    after: { months: 6 },
    falls: "containing",
    claimed: true,
    relief: "BDS",
    back: "BDR",
    says: "more than six months after the supply, written off in the books, and the customer told the amount",
    source: "VAT Law art. 64",
  },
  ...WHEN.map(([value, falls]): UnpaidRule => ({
    id: "unpaid-input",
    name: "Input tax of unpaid bills",
    direction: "purchase",
    from: "due",
    after: { months: 6 },
    falls,
    option: ["sixMonths", value],
    relief: "BDP",
    back: "BDQ",
    says: "six months after the agreed day of payment, the tax of the unpaid part is repaid",
    source: "VAT Law art. 55(2), Executive Regulation art. 54",
  })),
];
