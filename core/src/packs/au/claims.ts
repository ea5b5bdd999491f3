import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 8250,
  numberSource: "GST Act 1999 s.29-80: no tax invoice is needed up to it",
  sources: {
    unallocated: "GST Act 1999 s.29-5(2)",
    "no-registration": "GST Act 1999 s.23-5",
    "self-assessed": "GST Act 1999 Div 84",
    blocked: "GST Act 1999 Div 69",
    "foreign-vat": "GST Act 1999 Div 84",
    "unregistered-supplier": "GST Act 1999 s.11-5",
    "no-supplier-number": "GST Act 1999 s.29-70",
    old: "GST Act 1999 Div 93",
    "exempt-sales": "GST Act 1999 Div 11, 40",
  },
};
