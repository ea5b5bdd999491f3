import type { SheetCell } from "@fiscalon/core/formats/registers/sheetColumns";
import type { SheetPivot, SheetRowPage } from "@fiscalon/contract/registerSheets";
import type { Work } from "../../../base/work.ts";
import { sheetRecord } from "./sheets.ts";
import { figureOf, keyOf } from "../../../books/agree/register/sheetSql.ts";

/** What a pivot is asked for. */
export interface PivotAsk {
  rows: string;
  columns: string;
  figure: string;
  search: string;
}

const MOST_ROWS = 500;
const MOST_COLUMNS = 40;

/** Rows put together by two dimensions, what is added up in each cell, with totals of all of them. */
export async function sheetPivot(
  work: Work,
  clientId: number,
  id: number,
  ask: PivotAsk,
): Promise<SheetPivot> {
  const { columns, mapping } = await sheetRecord(work, clientId, id);
  const [row, column] = [keyOf(ask.rows, columns, mapping), keyOf(ask.columns, columns, mapping)];
  const cells = await work.rows<{
    row: string | number;
    column: string | number;
    amount: number;
    count: number;
  }>(
    `SELECT ${row} AS row, ${column} AS column, ${figureOf(ask.figure, columns, mapping)} AS amount, count(*) AS count
     FROM register_rows WHERE sheet_id = $1 AND ($2 = '%%' OR cells LIKE $2) GROUP BY 1, 2`,
    [id, `%${ask.search}%`],
  );
  const heads = [...new Set(cells.map((cell) => String(cell.column)))].sort().slice(0, MOST_COLUMNS);
  const byRow = new Map<string, SheetPivot["rows"][number]>();
  for (const cell of cells) {
    const key = String(cell.row);
    const entry = byRow.get(key) ?? { key, amounts: heads.map(() => null), total: 0, count: 0 };
    const at = heads.indexOf(String(cell.column));
    if (at >= 0) entry.amounts[at] = cell.amount;
    entry.total += cell.amount;
    entry.count += cell.count;
    byRow.set(key, entry);
  }
  const all = [...byRow.values()];
  const isDay = /^m|^c/.test(ask.rows) && all.every(({ key }) => /^\d{4}-\d{2}/.test(key) || key === "");
  const sorted = isDay
    ? all.sort((a, b) => (a.key < b.key ? -1 : 1))
    : all.sort((a, b) => Math.abs(b.total) - Math.abs(a.total) || (a.key < b.key ? -1 : 1));
  return {
    columns: heads,
    rows: sorted.slice(0, MOST_ROWS),
    totals: heads.map((head) =>
      cells.filter((cell) => String(cell.column) === head).reduce((sum, { amount }) => sum + amount, 0),
    ),
    total: cells.reduce((sum, { amount }) => sum + amount, 0),
    of: all.length,
  };
}

/** The rows of the register behind a cell of the pivot, by pages; null: whatever it is. */
export async function sheetRows(
  work: Work,
  clientId: number,
  id: number,
  ask: PivotAsk & { row: string | null; column: string | null; offset: number; limit: number },
): Promise<SheetRowPage> {
  const { columns, mapping } = await sheetRecord(work, clientId, id);
  const WHICH = `sheet_id = $1 AND ($2 = '%%' OR cells LIKE $2)
    AND ($3 IS NULL OR CAST(${keyOf(ask.rows, columns, mapping)} AS TEXT) = $3)
    AND ($4 IS NULL OR CAST(${keyOf(ask.columns, columns, mapping)} AS TEXT) = $4)`;
  const bind = [id, `%${ask.search}%`, ask.row, ask.column];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM register_rows WHERE ${WHICH}`,
    bind,
  );
  const rows = await work.rows<{ no: number; cells: string }>(
    `SELECT no, cells FROM register_rows WHERE ${WHICH} ORDER BY no LIMIT $5 OFFSET $6`,
    [...bind, ask.limit, ask.offset],
  );
  return { total, rows: rows.map(({ no, cells }) => ({ no, cells: JSON.parse(cells) as SheetCell[] })) };
}
