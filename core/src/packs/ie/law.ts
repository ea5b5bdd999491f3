import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  ["travel scheme", "flat-rate farmers' own claims", "VIES and Intrastat statements as files"],
  ["Whole euro on the VAT3", "cents are dropped and not rounded", "Revenue, VAT3 help text"],
  ["A negative T1 or T2", "it stands in the other of the two", "Revenue, VAT3 help text"],
  [
    "Leaving moneys received",
    "what debtors owe goes on the first return of the new basis",
    "VAT Regulations reg. 25 and 26",
  ],
  [
    "Errors up to 6,000",
    "whether the limit itself is still inside, and what it is a limit of",
    "Code of Practice for Revenue Compliance Interventions",
  ],
  ["The 19th and 23rd on a weekend", "they do not move", "Revenue"],
);
