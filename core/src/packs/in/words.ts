import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Tax invoice",
  creditNote: "Credit note",
  statements: {
    export: "Supply meant for export.",
    margin: "Used goods, value by rule 32(5).",
    "reverse-charge-supplier": "Tax is payable on reverse charge by the recipient.",
  },
  taxInHomeCurrency: true,
  source: "CGST Rules 2017 r.46, r.53",
};
