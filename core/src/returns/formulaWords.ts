import { formulaInWords } from "../formula/formulaInWords.ts";
import type { Packs } from "../model/packs.ts";

/** A box by its number; a family of boxes as the sum it is read as. */
function boxInWords(id: string): string {
  if (id.includes("*")) return `Σ ${id.replace(/\*\./g, "").replace(/\.\*/g, "")}`;
  return /^\d+$/.test(id) ? `box ${id}` : id;
}

/**
 * A formula of a form as one reads it: "box 1 + box 2", "G5.IL × Illinois %"; boxes by their number, or as `box` says
 * them, rates by name.
 */
export function formulaWords(formula: string, packs: Pick<Packs, "rateName">, box = boxInWords): string {
  return formulaInWords(formula, {
    box,
    rate: (schedule) => packs.rateName(schedule),
    name: (name) => name,
  });
}
