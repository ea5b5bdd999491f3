import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Invoice",
  creditNote: "Credit note",
  statements: {
    "reverse-charge-supplier": "Reverse charge: customer to pay the VAT to HMRC.",
    margin: "Margin scheme: second-hand goods.",
    "intra-union": "Intra-Community supply.",
  },
  taxInHomeCurrency: true,
  source: "VAT Regulations 1995 reg. 14; VAT Notice 700 s.16; VAT Notice 718",
};
