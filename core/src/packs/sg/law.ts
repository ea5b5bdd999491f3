import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "discounted sale price of vehicles",
    "the de minimis test of exempt supplies and the yearly adjustment",
    "tourist refunds by scheme",
    "the import schemes' own statements",
  ],
  ["Value boxes", "cents are dropped", "IRAS, guide to GST F5"],
  ["Due day on a weekend", "it does not move", "IRAS"],
  ["Late input tax", "five years, and where the concession nets", "IRAS, correcting errors"],
  ["Leaving the cash scheme", "what is unpaid goes on the last return", "IRAS"],
);
