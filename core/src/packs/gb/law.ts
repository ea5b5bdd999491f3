import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "the scheme of tour operators",
    "partial exemption by a special method",
    "groups and divisions",
    "Intrastat and sales lists",
  ],
  ["Boxes 6 to 9 in whole pounds", "pence are left out, not rounded", "VAT Notice 700/12"],
  [
    "Six months after leaving cash accounting",
    "its conditions, and the turnover above which it is refused",
    "SI 1995/2518 reg. 61, VAT Notice 731 section 6",
  ],
  [
    "Rates after the Budgets of November 2025 and 2026",
    "no change of the standard and reduced rate is known here",
    "gov.uk, VAT rates",
  ],
  ["Rounding of a line", "down to a tenth of a penny, or to the nearest", "VAT Notice 700, 17.5.2"],
);
