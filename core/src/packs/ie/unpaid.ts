import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debt relief",
    direction: "sale",
    from: "due",
    after: { months: 0 },
    falls: "containing",
    claimed: true,
    relief: "BDR",
    back: "BDX",
    says: "written off, with all steps taken to recover it, and the buyer not connected",
    source: "VATCA 2010 s.39(2), SI 639/2010 reg. 10",
  },
  {
    id: "unpaid-input",
    name: "Input tax of unpaid bills",
    direction: "purchase",
    from: "period",
    after: { months: 6 },
    reached: true,
    falls: "containing",
    relief: "UNP",
    back: "UNR",
    says: "six months after the end of the period in which it was deducted, the tax of the unpaid part is taken back",
    source: "VATCA 2010 s.62A",
  },
];
