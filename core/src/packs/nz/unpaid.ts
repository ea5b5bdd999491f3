import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debts written off",
    direction: "sale",
    from: "due",
    after: { months: 0 },
    falls: "containing",
    claimed: true,
    relief: "BW",
    back: "BV",
    says: "written off in the books, output tax already returned",
    source: "GSTA s 26",
  },
];
