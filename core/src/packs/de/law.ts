import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "travel scheme",
    "small businesses' own statements",
    "the import scheme of the one-stop shop",
    "the recapitulative statement as a file",
  ],
  ["Net amounts in whole euro", "cents are left out, not rounded", "ELSTER, notes to the advance return"],
  ["Special prepayment of a permanent extension", "whole euros, cut", "UStDV § 47, form USt 1 H"],
  ["New businesses", "whether they file monthly again after 2026", "UStG § 18(2) sentences 5 and 6"],
  ["Annual return", "its own line numbers", "form USt 2 A"],
);
