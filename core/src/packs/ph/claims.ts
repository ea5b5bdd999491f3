import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 100000,
  numberSource: "NIRC s. 113(B): above 1,000 the invoice to a registered buyer names its TIN",
  sources: {
    "self-assessed": "NIRC s. 108, 114(C)",
    "no-registration": "NIRC s. 236(G)",
    "unregistered-supplier": "NIRC s. 110(A)",
    "no-supplier-number": "NIRC s. 113(B)",
    "exempt-sales": "NIRC s. 110(A)(3)",
    old: "NIRC s. 110(A)",
  },
};
