import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 20000,
  numberSource: "GST Act 1985 s.19K: less is asked for up to it",
  sources: {
    unallocated: "GST Act 1985 s.19A",
    "no-registration": "GST Act 1985 s.51",
    "self-assessed": "GST Act 1985 s.8(4B)",
    "foreign-vat": "GST Act 1985 s.8(4B)",
    "unregistered-supplier": "GST Act 1985 s.3A and 20(3)",
    "no-supplier-number": "GST Act 1985 s.19H and 20(2)",
    old: "GST Act 1985 s.20(3)",
    "exempt-sales": "GST Act 1985 s.20(3C)",
  },
};
