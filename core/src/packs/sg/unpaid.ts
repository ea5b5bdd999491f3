import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Bad debt relief",
    direction: "sale",
    from: "supply",
    after: { months: 12 },
    reached: true,
    falls: "containing",
    claimed: true,
    relief: "BD",
    back: "BR",
    says: "unpaid twelve months after the supply, or the buyer insolvent, and written off",
    source: "GST Act s 25",
  },
  {
    id: "unpaid-input",
    name: "Input tax of unpaid bills",
    direction: "purchase",
    from: "due",
    after: { months: 12 },
    reached: true,
    falls: "containing",
    relief: "UO",
    back: "UI",
    says: "unpaid twelve months after the day payment was due, the tax of the unpaid part is repaid",
    source: "GST Act s 19(13)",
  },
];
