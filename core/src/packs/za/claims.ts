import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 5000,
  numberSource: "VAT Act 89 of 1991 s.20(6): no tax invoice is needed up to it",
  sources: {
    unallocated: "VAT Act 89 of 1991 s.15",
    "no-registration": "VAT Act 89 of 1991 s.23",
    "self-assessed": "VAT Act 89 of 1991 s.7(1)(c) and 14",
    blocked: "VAT Act 89 of 1991 s.17(2)",
    "foreign-vat": "VAT Act 89 of 1991 s.14",
    "unregistered-supplier": "VAT Act 89 of 1991 s.16(2)",
    "no-supplier-number": "VAT Act 89 of 1991 s.16(2), 20(4) and (5)",
    old: "VAT Act 89 of 1991 s.16(3)",
    "exempt-sales": "VAT Act 89 of 1991 s.17(1)",
  },
};
