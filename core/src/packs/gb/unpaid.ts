import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debt relief",
    direction: "sale",
    from: "due-or-supply",
    after: { months: 6 },
    falls: "containing",
    claimed: true,
    until: 54,
    relief: "BDR",
    back: "BDX",
    says: "more than six months after the later of the day payment was due and the supply, written off to the account of refunds for bad debts; within four years and six months of that day",
    source: "VATA 1994 s.36, SI 1995/2518 regs. 165 to 172, VAT Notice 700/18",
  },
  {
    id: "unpaid-input",
    name: "Input tax of unpaid bills",
    direction: "purchase",
    from: "due-or-supply",
    after: { months: 6 },
    falls: "containing",
    relief: "CLW",
    back: "CLR",
    says: "six months after the later of the day payment was due and the supply, what was deducted of the unpaid part is repaid",
    source: "VATA 1994 s.26A, SI 1995/2518 regs. 172F to 172J",
  },
];
