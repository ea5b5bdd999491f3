import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debts",
    direction: "sale",
    from: "due",
    after: { months: 12 },
    reached: true,
    falls: "containing",
    claimed: true,
    relief: "A-",
    back: "A+",
    says: "overdue for twelve months, or written off before",
    source: "GSTA Div 21",
  },
  {
    id: "unpaid-input",
    name: "Credits of unpaid bills",
    direction: "purchase",
    from: "due",
    after: { months: 12 },
    reached: true,
    falls: "containing",
    relief: "A+",
    back: "A-",
    says: "overdue for twelve months, the credit of the unpaid part is given back",
    source: "GSTA Div 21",
  },
];
