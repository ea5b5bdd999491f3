import type { SheetCell, SheetColumn } from "@fiscalon/core/formats/registers/sheetColumns";
import type { SheetMapping } from "@fiscalon/contract/registerSheets";
import { FiscalError } from "@fiscalon/core/errors";
import type { Writing } from "../../../base/work.ts";

/** The sum of a column, nought where every cell is blank. `at` is a whole number that was checked. */
export const AMOUNT_OF = (at: number) => `coalesce(sum(cells ->> ${at}), 0)`;

/** The sum of several columns. */
export function sumOf(places: readonly number[]): string {
  return places.length === 0 ? "0" : places.map(AMOUNT_OF).join(" + ");
}

/**
 * What rows are put together by, as SQL over `cells`: a column, the month of one, whether tax is there.
 * @throws FiscalError `register/dimension`
 */
export function keyOf(dimension: string, columns: readonly SheetColumn[], { tax }: SheetMapping): string {
  if (dimension === "") return "''";
  if (dimension === "tax") {
    if (tax === null) throw noColumn(dimension);
    return `CASE WHEN cells ->> ${tax} IS NULL THEN 'blank' WHEN cells ->> ${tax} = 0 THEN 'nought' ELSE 'with tax' END`;
  }
  const at = Number(dimension.slice(1));
  if (at >= columns.length) throw noColumn(dimension);
  const cell = `coalesce(cells ->> ${at}, '')`;
  return dimension.startsWith("m") ? `substr(${cell}, 1, 7)` : cell;
}

/** What is added up, as SQL. */
export function figureOf(figure: string, columns: readonly SheetColumn[], mapping: SheetMapping): string {
  if (figure === "accounts" || figure === "returns") return sumOf(mapping[figure]);
  const at = Number(figure.slice(1));
  if (columns[at]?.kind !== "amount") throw noColumn(figure);
  return AMOUNT_OF(at);
}

function noColumn(what: string): FiscalError {
  return new FiscalError(
    "register/dimension",
    `This register has no column for "${what}". Choose one that is offered.`,
    "rows",
  );
}

const SLICE = 5000;

/** Keeps a register with its rows. */
export async function insertSheet(
  work: Writing,
  clientId: number,
  { name, columns, mapping }: { name: string; columns: readonly SheetColumn[]; mapping: SheetMapping },
  rows: readonly (readonly SheetCell[])[],
): Promise<number> {
  await work.run(
    `INSERT INTO register_sheets (client_id, name, columns, mapping, created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6)`,
    [clientId, name, JSON.stringify(columns), JSON.stringify(mapping), work.at, work.person],
  );
  const { id } = await work.one<{ id: number }>("SELECT last_insert_rowid() AS id");
  for (let start = 0; start < rows.length; start += SLICE) {
    await work.run(
      `INSERT INTO register_rows (sheet_id, no, cells) SELECT $1, $2 + key, value FROM json_each($3)`,
      [id, start + 1, JSON.stringify(rows.slice(start, start + SLICE))],
    );
  }
  return id;
}
