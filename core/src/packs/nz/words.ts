import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice (taxable supply information)",
  creditNote: "Supply correction information",
  statements: {},
  taxInHomeCurrency: true,
  source: "GST Act 1985 s.19E to s.19N",
};
