import type { ClaimRules } from "../../model/pack.ts";

/** Where the law of the checks before filing stands. */
export const claims: ClaimRules = {
  numberAbove: 25000,
  numberSource: "SI 1995/2518 reg. 16A: limit of the simplified invoice",
  sources: {
    arithmetic: "VAT Notice 700/12",
    unallocated: "VAT Notice 731",
    "no-registration": "VATA 1994 Sch 1",
    "self-assessed": "VATA 1994 s.8",
    "box-6-purchase": "VAT Notice 735, VAT Notice 700/12",
    blocked: "SI 1992/3222 art. 5 and 7",
    "wages-coded": "VAT Notice 700/12",
    "foreign-vat": "VAT Notice 741A",
    "unregistered-supplier": "VATA 1994 s.24",
    "no-supplier-number": "SI 1995/2518 reg. 13 and 14",
    "series-gap": "SI 1995/2518 reg. 14(1)(a), from memory",
    old: "VATA 1994 s.80(4), VAT Notice 700/45",
    "late-item": "SI 1995/2518 reg. 34",
    "reverse-charge-customer": "VAT Notice 735",
    "northern-ireland": "VAT Notice 725",
    "import-certificate": "VAT Notice 702",
    "exempt-sales": "SI 1995/2518 reg. 101",
  },
};
