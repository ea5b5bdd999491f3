import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice",
  creditNote: "Credit note",
  statements: {
    margin: "Sale of second-hand goods under the Gross Margin Scheme; no input tax can be claimed.",
  },
  taxInHomeCurrency: true,
  source: "GST (General) Regulations reg. 11",
};
