import type { Packs } from "@fiscalon/core/model/packs";

/** A formula of a form as one reads it: "box 1 + box 2", "G5.IL × Illinois %"; boxes by their number, rates by name. */
export function formulaWords(formula: string, packs: Packs): string {
  return formula
    .replace(/\[([^\]]+)\]/g, (_, box: string) => (/^\d+$/.test(box) ? `box ${box}` : box))
    .replace(/\{([^}]+)\}\s*\/\s*100\b/g, (_, rate: string) => `${packs.rateName(rate)} %`)
    .replace(/\{([^}]+)\}/g, (_, rate: string) => packs.rateName(rate))
    .replace(/ - /g, " − ")
    .replace(/ \* /g, " × ");
}
