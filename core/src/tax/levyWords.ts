import type { Packs } from "../model/packs.ts";
import type { LevyTotal } from "../model/pricedDocument.ts";

const PER = { percent: " %", unit: " a unit", document: " a document", formula: "", none: "" } as const;
const WAY = {
  charged: "",
  "self-assessed": ", self-assessed, not charged",
  "declared-only": ", for the customer to account for",
} as const;

/** A levy of a document in words: "VAT 20 %", "Tyre fee 3.50 a unit", "VAT 20 %, for the customer to account for". */
export function levyWords(
  { levy, rate, per, charged }: Pick<LevyTotal, "levy" | "rate" | "per" | "charged">,
  packs: Packs,
): string {
  const at = rate === null || per === "none" || per === "formula" ? "" : ` ${rate}${PER[per]}`;
  return `${packs.levyName(levy)}${at}${WAY[charged]}`;
}
