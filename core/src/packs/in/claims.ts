import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 0,
  numberSource: "CGST Act 2017 s.16(2)(a), CGST Rules r.36: whatever the amount",
  sources: {
    "no-registration": "CGST Act 2017 s.22",
    "self-assessed": "CGST Act 2017 s.9(3) and (4)",
    blocked: "CGST Act 2017 s.17(5)",
    "foreign-vat": "IGST Act 2017 s.5(3)",
    "unregistered-supplier": "CGST Act 2017 s.16(2)",
    "no-supplier-number": "CGST Act 2017 s.16(2)(a), CGST Rules r.36 and 46",
    "series-gap": "CGST Rules r.46(b)",
    old: "CGST Act 2017 s.16(4)",
    "exempt-sales": "CGST Act 2017 s.17(2)",
  },
};
