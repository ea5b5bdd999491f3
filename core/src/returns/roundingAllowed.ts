import { parseFormula } from "../formula/parseFormula.ts";
import type { BoxDefinition, ReturnForm } from "../model/returnForm.ts";
import type { Rounding } from "../model/rounding.ts";
import { readBy } from "./boxesInOrder.ts";

/**
 * The most by which rounding can set what a form comes to apart from the tax of its documents, in minor units. Each
 * box it is made of that is in larger units may be off by half of one, by one where the rest is cut. A form that works tax out anew, from
 * bases or totals, may be off besides by what the tax of each line was rounded by.
 * @param lines how many taxed lines the return has
 * @param rounding how the documents are rounded
 */
export function roundingAllowed(form: ReturnForm, lines: number, rounding: Rounding): number {
  const boxes = madeOf(form);
  const inBoxes = boxes.reduce((sum, box) => sum + offBy(box), 0);
  const perLine = (rounding.step ?? 1) * (nearest(rounding.mode) ? 0.5 : 1);
  return Math.floor(inBoxes + (boxes.some(worksAnew) ? lines * perLine : 0));
}

/** The boxes that what is due comes from. */
function madeOf({ boxes, net }: ReturnForm): BoxDefinition[] {
  const wanted = [...parseFormula(net.due).boxes];
  const found = new Map<string, BoxDefinition>();
  for (let id = wanted.pop(); id !== undefined; id = wanted.pop()) {
    const box = boxes.find((one) => one.id === id);
    if (!box || found.has(id)) continue;
    found.set(id, box);
    wanted.push(...readBy(box));
  }
  return [...found.values()];
}

function offBy(box: BoxDefinition): number {
  const { mode, step } = box.rounding;
  if (step === 1 && !worksAnew(box)) return 0;
  return nearest(mode) ? step / 2 : step;
}

function nearest(mode: Rounding["mode"]): boolean {
  return mode === "half-up" || mode === "half-even";
}

/** Whether a box is the tax on a base or a share of others, and not one of them or their sum. */
function worksAnew(box: BoxDefinition): boolean {
  if (box.kind === "formula") return /[*/]/.test(box.formula.replace(/\[[^\]]*\]/g, ""));
  return box.kind === "taxed";
}
