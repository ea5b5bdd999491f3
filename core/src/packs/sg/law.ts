import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  ["Value boxes", "cents are dropped", "IRAS, guide to GST F5"],
  ["Due day on a weekend", "it does not move", "IRAS"],
  ["Late input tax", "five years, and where the concession nets", "IRAS, correcting errors"],
  ["Blocked purchases", "they stand in box 5", "IRAS, guide to GST F5"],
  ["Leaving the cash scheme", "what is unpaid goes on the last return", "IRAS"],
);
