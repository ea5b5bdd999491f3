import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 100000,
  numberSource: "GST (General) Regulations reg. 13: limit of the simplified tax invoice",
  sources: {
    "no-registration": "GST Act 1993 First Schedule",
    "self-assessed": "GST Act 1993 s.14",
    blocked: "GST (General) Regulations reg. 26 and 27",
    "foreign-vat": "GST Act 1993 s.14",
    "unregistered-supplier": "GST Act 1993 s.19",
    "no-supplier-number": "GST (General) Regulations reg. 11",
    old: "GST (General) Regulations reg. 61",
    "exempt-sales": "GST (General) Regulations reg. 29",
  },
};
