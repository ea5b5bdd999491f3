import { parseDate } from "../../calendar/parseDate.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { registerAmount } from "../registers/registerAmount.ts";
import type { DecimalSign } from "../registers/registerAmount.ts";
import type { RowProblem } from "../registers/readRow.ts";
import type { FieldColumns } from "./tableKinds.ts";

/** How the cells of a table are read. */
export interface TableReading {
  headerRow: number;
  mapping: FieldColumns;
  dateOrder: DateOrder;
  decimal: DecimalSign;
  digits: number;
  /** Line numbers of the file to leave out. */
  leftOut: ReadonlySet<number>;
  /** Cells mended by hand: by line number, by column. */
  mended: ReadonlyMap<number, ReadonlyMap<number, string>>;
}

/** A row of a table with its cells by field; `problem` notes what is wrong with one. `row` counts from 1. */
export interface TableRow {
  row: number;
  text: (field: string) => string;
  date: (field: string) => string | null;
  amount: (field: string) => number | null;
  problem: (field: string, message: string) => void;
  /** Whether anything was wrong with it so far. */
  broken: () => boolean;
}

/** The rows of a table below its heading, blank ones and those left out skipped; problems are gathered in `problems`. */
export function* tableRows(
  rows: Iterable<readonly string[]>,
  reading: TableReading,
  problems: RowProblem[],
): Generator<TableRow> {
  let position = 0;
  for (const cells of rows) {
    position += 1;
    if (position - 1 <= reading.headerRow || reading.leftOut.has(position)) continue;
    if (cells.every((cell) => cell.trim() === "")) continue;
    yield tableRow(cells, position, reading, problems);
  }
}

function tableRow(
  cells: readonly string[],
  row: number,
  { mapping, mended, dateOrder, decimal, digits }: TableReading,
  problems: RowProblem[],
): TableRow {
  const before = problems.length;
  const text = (field: string) => {
    const column = mapping[field];
    if (column === undefined) return "";
    return (mended.get(row)?.get(column) ?? cells[column] ?? "").trim();
  };
  const problem = (field: string, message: string) => {
    problems.push({ row, column: mapping[field] ?? null, field, value: text(field), message });
  };
  return {
    row,
    text,
    problem,
    broken: () => problems.length > before,
    date: (field) => {
      const date = parseDate(text(field), dateOrder);
      if (date === undefined)
        problem(
          field,
          text(field) === "" ? "The date is missing." : `"${text(field)}" is no date that exists.`,
        );
      return date ?? null;
    },
    amount: (field) => {
      const amount = registerAmount(text(field), decimal, digits);
      if (amount === undefined) problem(field, `"${text(field)}" is not an amount.`);
      return amount ?? null;
    },
  };
}
