import { formulaInWords } from "@fiscalon/core/formula/formulaInWords";
import type { Packs } from "@fiscalon/core/model/packs";

/** A box by its number; a family of boxes as the sum it is read as. */
function boxInWords(id: string): string {
  if (id.includes("*")) return `Σ ${id.replace(/\*\./g, "").replace(/\.\*/g, "")}`;
  return /^\d+$/.test(id) ? `box ${id}` : id;
}

/** A formula of a form as one reads it: "box 1 + box 2", "G5.IL × Illinois %"; boxes by their number, rates by name. */
export function formulaWords(formula: string, packs: Packs): string {
  return formulaInWords(formula, {
    box: boxInWords,
    rate: (schedule) => packs.rateName(schedule),
    name: (name) => name,
  });
}
