import type { TrailStep } from "@fiscalon/contract/trail";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { parseFormula } from "@fiscalon/core/formula/parseFormula";
import { displayAmount } from "@fiscalon/core/money/amount";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import { figureOfBoxes } from "@fiscalon/core/returns/returnFigures";
import { shownBox } from "@fiscalon/core/returns/shownBox";
import { registrationIn } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { boxStep, formulaLines } from "./boxSteps.ts";
import type { TrailScope } from "./trailScope.ts";

/** What of a return can be opened, and which of its formulas says it. */
const FIGURES = {
  output: ["Output tax", "output"],
  input: ["Input tax", "input"],
  net: ["Net tax", "due"],
  carried: ["Credit carried forward", "carried"],
} as const;

/** What a figure of a whole return is made of: the box that shows it, or the boxes of its formula where none does. */
export async function positionStep(
  scope: TrailScope,
  [rid = "", end = "", figure = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const { work, setup } = scope;
  const [name, key] = Object.entries(FIGURES).find(([id]) => id === figure)?.[1] ?? [];
  const r = registrationIn(setup, rid);
  const { form, boxes: now } = await boxesNow(work, r, end);
  const formula = key && form.net[key];
  if (formula === undefined)
    throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  const boxes = (await returnRecord(work, r.id, end))?.boxes ?? now;
  const { digits } = setup.plain;
  const amount = figureOfBoxes(formula, boxes, digits);
  const { boxes: ids } = parseFormula(formula);
  const shown = key === "due" ? shownBox(form, amount) : formula === `[${ids[0]}]` ? ids[0] : undefined;
  if (shown !== undefined && Math.abs(amountOfBox(boxes, shown)) === Math.abs(amount))
    return boxStep(scope, [rid, end, shown], ref);
  const [words, figures] = formulaLines(formula, boxes, work.packs, digits);
  return {
    ref,
    title: `${name}, period to ${displayDate(end)}`,
    amount,
    digits,
    words: [`Form: ${form.name} (${form.source}).`],
    parts: ids.map((id) => ({
      ref: `box/${rid}/${end}/${id}`,
      label: `Box ${id}`,
      detail: boxDefinition(form, id).short,
      amount: amountOfBox(boxes, id),
    })),
    arithmetic: [words, `${figures} = ${displayAmount(amount, digits)}`],
    open: { label: "Return", path: `return/${end}` },
  };
}
