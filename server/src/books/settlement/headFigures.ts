import { parseFormula } from "@fiscalon/core/formula/parseFormula";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { figureOfBoxes } from "@fiscalon/core/returns/returnFigures";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { formOf } from "../returns/evaluation.ts";

/** Figures of a return by head, as formulas over its boxes; heads its form does not have are left out. Minor units. */
export function headFigures(
  work: Work,
  r: RegistrationRecord,
  end: string,
  formulas: Readonly<Record<string, string>>,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
): { head: string; amount: number }[] {
  const ids = new Set(formOf(work, r, end).boxes.map(({ id }) => id));
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  return Object.entries(formulas)
    .filter(([, formula]) => parseFormula(formula).boxes.every((id) => ids.has(id)))
    .map(([head, formula]) => ({ head, amount: figureOfBoxes(formula, boxes, digits) }));
}
