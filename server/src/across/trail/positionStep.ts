import type { TrailStep } from "@fiscalon/contract/trail";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { parseFormula } from "@fiscalon/core/formula/parseFormula";
import { displayAmount } from "@fiscalon/core/money/amount";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import { figureOfBoxes } from "@fiscalon/core/returns/returnFigures";
import { registrationIn } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { formulaLines } from "./boxSteps.ts";
import type { TrailScope } from "./trailScope.ts";

const NAMES = { output: "Output tax", input: "Input tax" };

/** What output or input tax of a period is made of, where the form has no single box that says it. */
export async function positionStep(
  { work, setup }: TrailScope,
  [rid = "", end = "", side = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  if (side !== "output" && side !== "input")
    throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  const r = registrationIn(setup, rid);
  const { form, boxes: now } = await boxesNow(work, r, end);
  const boxes = (await returnRecord(work, r.id, end))?.boxes ?? now;
  const { digits } = setup.plain;
  const formula = form.net[side];
  const amount = figureOfBoxes(formula, boxes, digits);
  const [words, figures] = formulaLines(formula, boxes, work.packs, digits);
  return {
    ref,
    title: `${NAMES[side]}, period to ${displayDate(end)}`,
    amount,
    digits,
    words: [`Form: ${form.name} (${form.source}).`],
    parts: parseFormula(formula).boxes.map((id) => ({
      ref: `box/${rid}/${end}/${id}`,
      label: `Box ${id}`,
      detail: boxDefinition(form, id).short,
      amount: amountOfBox(boxes, id),
    })),
    arithmetic: [words, `${figures} = ${displayAmount(amount, digits)}`],
    open: { label: "Return", path: `return/${end}` },
  };
}
