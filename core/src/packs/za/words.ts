import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice",
  creditNote: "Credit note",
  statements: {},
  taxInHomeCurrency: true,
  source: "VAT Act 89 of 1991 s.20, s.21",
};
