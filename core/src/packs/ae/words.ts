import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice",
  creditNote: "Tax credit note",
  statements: {
    "reverse-charge-supplier": "The recipient accounts for the tax under the reverse charge.",
    margin: "The profit margin scheme was applied.",
  },
  taxInHomeCurrency: true,
  source: "VAT Executive Regulations art. 59, 60",
};
