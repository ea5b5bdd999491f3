import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 25000,
  numberSource: "UStDV § 33: an invoice of small amount",
  sources: {
    unallocated: "UStG § 20",
    "self-assessed": "UStG § 13b",
    blocked: "UStG § 15(1a)",
    "foreign-vat": "UStG § 13b and 18(9)",
    "unregistered-supplier": "UStG § 15(1)",
    "no-supplier-number": "UStG § 14(4)",
    "series-gap": "UStG § 14(4) no. 4",
    "turnover-limit": "UStG § 19(1)",
    old: "AO § 169",
    "reverse-charge-customer": "UStG § 13b(5)",
    "exempt-sales": "UStG § 15(2) and (4)",
  },
};
