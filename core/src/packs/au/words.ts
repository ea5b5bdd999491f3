import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice",
  creditNote: "Adjustment note",
  statements: {},
  taxInHomeCurrency: true,
  source: "GST Act 1999 s.29-70, s.29-75",
};
