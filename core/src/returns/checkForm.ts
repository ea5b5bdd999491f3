import { FiscalError, withinField } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { idsOfFamily, isFamily } from "./boxFamily.ts";
import { boxesInOrder } from "./boxesInOrder.ts";
import type { BoxDefinition, ReturnForm } from "../model/returnForm.ts";

/**
 * Refuses a form that could not be evaluated: two boxes of one name, a formula that does not parse or reads what is
 * not there, boxes that are worked out from each other.
 * @throws FiscalError with the path: `returns/double-box`, `returns/unknown-box`, `returns/unknown-schedule`,
 * `returns/circular-boxes`, `formula/…`
 */
export function checkForm(form: ReturnForm, schedules: RateSchedules): void {
  const ids = new Set<string>();
  form.boxes.forEach((box, index) =>
    withinField(`boxes[${index}]`, () => {
      if (ids.has(box.id)) {
        throw new FiscalError("returns/double-box", `The form has two boxes ${box.id}.`, "id");
      }
      ids.add(box.id);
    }),
  );
  form.boxes.forEach((box, index) => withinField(`boxes[${index}]`, () => checkBox(box, ids, schedules)));
  boxesInOrder(form.boxes);
  for (const [name, formula] of Object.entries<string>({ ...form.net })) {
    const field = `net.${name}`;
    if (name === "shown" || name === "repaid") requireBox(formula, ids, field);
    else withinField(field, () => checkFormula(formula, ids, schedules));
  }
  form.rules?.forEach(({ formula }, index) =>
    withinField(`rules[${index}].formula`, () => checkFormula(formula, ids, schedules)),
  );
}

function checkBox(box: BoxDefinition, ids: ReadonlySet<string>, schedules: RateSchedules): void {
  if (box.kind === "formula") withinField("formula", () => checkFormula(box.formula, ids, schedules));
  if (box.kind === "carried") requireBox(box.of, ids, "of");
  if (box.kind === "taxed") {
    requireBox(box.of, ids, "of");
    requireSchedule(box.schedule, schedules);
  }
  if (box.kind === "sum" && box.negativeTo !== undefined) requireBox(box.negativeTo, ids, "negativeTo");
}

function checkFormula(text: string, ids: ReadonlySet<string>, schedules: RateSchedules): void {
  const formula = parseFormula(text);
  for (const id of formula.boxes) requireBox(id, ids, undefined);
  const name = formula.names[0] ?? formula.rates.find((id) => !schedules[id]);
  if (name === undefined) return;
  throw new FiscalError("formula/unknown-name", `"${text}" reads ${name}, which a form does not know.`);
}

function requireSchedule(id: string, schedules: RateSchedules): void {
  if (isFamily(id) ? idsOfFamily(id, Object.keys(schedules)).length > 0 : schedules[id]) return;
  throw new FiscalError("returns/unknown-schedule", `There is no schedule of rates ${id}.`, "schedule");
}

function requireBox(id: string, ids: ReadonlySet<string>, field: string | undefined): void {
  if (ids.has(id)) return;
  throw new FiscalError("returns/unknown-box", `The form has no box ${id}.`, field);
}
