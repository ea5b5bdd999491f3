import { FiscalError, withinField } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { idsOfFamily, isFamily } from "./boxFamily.ts";
import { boxesInOrder } from "./boxesInOrder.ts";
import type { BoxDefinition, FormTable, ReturnForm } from "../model/returnForm.ts";

/**
 * Refuses a form that could not be evaluated: two boxes of one name, a formula that does not parse or reads what is
 * not there, boxes that are worked out from each other.
 * @throws FiscalError with the path: `returns/double-box`, `returns/unknown-box`, `returns/unknown-schedule`,
 * `returns/circular-boxes`, `returns/table-width`, `returns/box-in-no-table`, `formula/…`
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
  if (form.tables) checkTables(form.tables, form.boxes, ids);
}

/** Tables of a form show each of its boxes, steps of the computation aside. */
function checkTables(
  tables: readonly FormTable[],
  boxes: readonly BoxDefinition[],
  ids: ReadonlySet<string>,
): void {
  const placed = new Set<string>();
  tables.forEach(({ columns, rows }, index) =>
    rows.forEach(({ title, cells }, row) => {
      const field = `tables[${index}].rows[${row}].cells`;
      if (cells.length > 0 && cells.length !== columns.length) {
        throw new FiscalError(
          "returns/table-width",
          `Row "${title}" has ${cells.length} cells, and its table ${columns.length} columns.`,
          field,
        );
      }
      for (const id of cells) {
        if (id === null) continue;
        requireBox(id, ids, field);
        placed.add(id);
      }
    }),
  );
  const left = boxes.find(({ id, helper }) => !helper && !placed.has(id));
  if (left === undefined) return;
  throw new FiscalError(
    "returns/box-in-no-table",
    `Box ${left.id} stands in no table of the form. Give it a row, or mark it as a step of the computation.`,
    "tables",
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
