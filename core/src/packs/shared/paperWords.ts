import type { PaperWords } from "../../model/pack.ts";

export const EU_STATEMENTS: PaperWords["statements"] = {
  "reverse-charge-supplier": "Reverse charge: the customer accounts for the tax.",
  "intra-union": "Exempt intra-Community supply (Directive 2006/112/EC, art. 138).",
  export: "Exempt export (Directive 2006/112/EC, art. 146).",
  margin: "Margin scheme: second-hand goods.",
};

/** Where no law asks for more. */
export const PLAIN_WORDS: PaperWords = {
  invoice: "Invoice",
  creditNote: "Credit note",
  statements: EU_STATEMENTS,
  taxInHomeCurrency: false,
  source: "common practice, no source",
};
