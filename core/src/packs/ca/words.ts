import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Invoice",
  creditNote: "Credit note",
  statements: {},
  taxInHomeCurrency: false,
  source: "Input Tax Credit Information (GST/HST) Regulations s.3",
};
