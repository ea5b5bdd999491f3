import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "unpaid-input",
    name: "Credit of bills unpaid for 180 days",
    direction: "purchase",
    from: "supply",
    after: { days: 180 },
    falls: "following",
    option: ["rule37", "next"],
    relief: "REV",
    back: "RCL",
    says: "180 days after the invoice, the credit of the unpaid part is reversed, and comes back on payment",
    source: "CGST s.16(2), Rules R.37",
  },
  {
    id: "unpaid-input",
    name: "Credit of bills unpaid for 180 days",
    direction: "purchase",
    from: "supply",
    after: { days: 180 },
    falls: "containing",
    option: ["rule37", "same"],
    relief: "REV",
    back: "RCL",
    says: "180 days after the invoice, the credit of the unpaid part is reversed, and comes back on payment",
    source: "CGST s.16(2), Rules R.37",
  },
];
