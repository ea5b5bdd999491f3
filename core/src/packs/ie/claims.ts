import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 10000,
  numberSource: "SI 639/2010 reg. 22: limit of the simplified invoice",
  sources: {
    unallocated: "VATCA 2010 s.80",
    "no-registration": "VATCA 2010 s.6 and 65",
    "self-assessed": "VATCA 2010 s.12 and 16",
    blocked: "VATCA 2010 s.60(2)(a)",
    "foreign-vat": "VATCA 2010 s.12 and 59",
    "unregistered-supplier": "VATCA 2010 s.59",
    "no-supplier-number": "VATCA 2010 s.66",
    "series-gap": "SI 639/2010 reg. 20",
    "goods-share": "VATCA 2010 s.41",
    old: "VATCA 2010 s.99(4)",
    "reverse-charge-customer": "VATCA 2010 s.16",
    "exempt-sales": "VATCA 2010 s.61",
  },
};
