import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Rechnung (invoice)",
  creditNote: "Rechnungskorrektur (credit note)",
  statements: {
    "reverse-charge-supplier": "Steuerschuldnerschaft des Leistungsempfängers.",
    "intra-union": "Steuerfreie innergemeinschaftliche Lieferung.",
    export: "Steuerfreie Ausfuhrlieferung.",
    margin: "Gebrauchtgegenstände/Sonderregelung.",
  },
  taxInHomeCurrency: true,
  source: "UStG §14 Abs. 4, §14a",
};
