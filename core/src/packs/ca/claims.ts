import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. From memory of the law. */
export const claims: ClaimRules = {
  numberAbove: 10000,
  numberSource: "Input Tax Credit Information (GST/HST) Regulations s.3",
  sources: {
    "no-registration": "ETA s.240",
    "self-assessed": "ETA s.218",
    blocked: "ETA s.67.1 and 170",
    "foreign-vat": "ETA s.169 and 218",
    "unregistered-supplier": "ETA s.169(1)",
    "no-supplier-number": "ETA s.169(4)",
    old: "ETA s.225(4)",
    "exempt-sales": "ETA s.141.01",
  },
};
