import type { PaperWords } from "../../model/pack.ts";

/** From memory; the source is where to verify. */
export const words: PaperWords = {
  invoice: "Invoice",
  creditNote: "Credit memo",
  statements: { exempt: "VAT-exempt sale", zero: "Zero-rated sale", export: "Zero-rated sale" },
  taxInHomeCurrency: true,
  source: "NIRC s. 113, 237; RR 7-2024",
};
