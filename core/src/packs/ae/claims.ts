import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 1000000,
  numberSource: "Executive Regulation art. 59: limit of the simplified tax invoice",
  sources: {
    "no-registration": "FDL 8/2017 art. 13",
    "self-assessed": "FDL 8/2017 art. 48",
    blocked: "Executive Regulation art. 53",
    "foreign-vat": "FDL 8/2017 art. 48 and 54",
    "unregistered-supplier": "FDL 8/2017 art. 54 and 55",
    "no-supplier-number": "FDL 8/2017 art. 55, Executive Regulation art. 59",
    old: "FDL 8/2017 art. 55",
    "exempt-sales": "Executive Regulation art. 55",
  },
};
