import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "unpaid-input",
    name: "Input tax of creditors unpaid for twelve months",
    direction: "purchase",
    from: "period",
    after: { months: 12 },
    falls: "containing",
    relief: "OA",
    back: "OI",
    says: "twelve months after the end of the period of the claim, the tax of the unpaid part is output tax",
    source: "VAT Act s. 22(3) and (4)",
  },
];
