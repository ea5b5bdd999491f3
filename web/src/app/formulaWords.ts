import { formulaInWords } from "@fiscalon/core/formula/formulaInWords";
import type { Packs } from "@fiscalon/core/model/packs";

/** A formula of a form as one reads it: "box 1 + box 2", "G5.IL × Illinois %"; boxes by their number, rates by name. */
export function formulaWords(formula: string, packs: Packs): string {
  return formulaInWords(formula, {
    box: (id) => (/^\d+$/.test(id) ? `box ${id}` : id),
    rate: (schedule) => packs.rateName(schedule),
    name: (name) => name,
  });
}
