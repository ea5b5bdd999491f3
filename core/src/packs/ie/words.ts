import type { PaperWords } from "../../model/pack.ts";
import { EU_STATEMENTS } from "../shared/paperWords.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Invoice",
  creditNote: "Credit note",
  statements: {
    ...EU_STATEMENTS,
    margin: "Margin Scheme: this invoice does not give the right to an input credit of VAT.",
  },
  taxInHomeCurrency: true,
  source: "VAT Regulations 2010 reg. 20",
};
