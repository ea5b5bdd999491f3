import { textAt } from "../../at.ts";
import { parseDate } from "../../calendar/parseDate.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { orderOfDates } from "../tables/recogniseTable.ts";
import { HEADERS } from "./columns.ts";
import { guessDecimalSign, registerAmount } from "./registerAmount.ts";

/** What the cells of a column are. */
export type ColumnKind = "amount" | "date" | "text";

/** A column of an exported register as it was found. */
export interface SheetColumn {
  name: string;
  kind: ColumnKind;
}

/** A cell: amounts in minor units, dates as YYYY-MM-DD; null where it is blank. */
export type SheetCell = number | string | null;

/** A register as a sheet: every column, whether anybody knows it or not. */
export interface RegisterSheet {
  columns: SheetColumn[];
  rows: SheetCell[][];
}

const HEAD_ROWS = 20;

/**
 * Reads a table as it is: its heading is the first row with most names, each column is amounts, dates or text by what
 * stands in it. It needs no document numbers; rows of totals, without a date or a party beside amounts, are left out.
 */
export function readSheet(
  cells: readonly (readonly string[])[],
  assumedOrder: DateOrder,
  digits: number,
): RegisterSheet {
  const width = Math.max(0, ...cells.map((row) => row.length));
  const head = headingOf(cells);
  const titles = cells[head] ?? [];
  const body = cells
    .slice(head + 1)
    .filter((row) => row.some((cell) => cell.trim() !== "") && !row.some((cell) => TOTAL.test(cell.trim())));
  const columns = Array.from(
    { length: width },
    (_, at): SheetColumn & { read: (text: string) => SheetCell } => {
      const name = textAt(titles, at).trim() || `Column ${at + 1}`;
      const samples = body.map((row) => textAt(row, at).trim()).filter((text) => text !== "");
      const order = orderOfDates(samples) ?? assumedOrder;
      if (most(samples, (text) => /\d\D+\d|\d{8}/.test(text) && parseDate(text, order) !== undefined))
        return { name, kind: "date", read: (text) => parseDate(text, order) ?? text };
      const decimal = guessDecimalSign(samples);
      const isAmount = (text: string) => typeof registerAmount(text, decimal, digits) === "number";
      const known = HEADERS.number.test(name.toLowerCase()) || HEADERS.rate.test(name.toLowerCase());
      if (
        !known &&
        most(samples, isAmount) &&
        (samples.some((text) => /[.,]\d{1,2}\D*$/.test(text)) || AMOUNT.test(name))
      )
        return { name, kind: "amount", read: (text) => registerAmount(text, decimal, digits) ?? null };
      return { name, kind: "text", read: (text) => text };
    },
  );
  const rows = body.map((row) =>
    columns.map(({ read }, at) => {
      const text = textAt(row, at).trim();
      return text === "" ? null : read(text);
    }),
  );
  return {
    columns: columns.map(({ name, kind }) => ({ name, kind })),
    rows: rows.filter((row) => columns.some(({ kind }, at) => kind !== "amount" && row[at] !== null)),
  };
}

const AMOUNT =
  /amount|net|gross|total|value|vat|gst|tax|price|fee|shipping|freight|duty|discount|debit|credit/i;
const TOTAL = /^(grand )?(sub)?total\b/i;

function most(samples: readonly string[], fits: (text: string) => boolean): boolean {
  return samples.length > 0 && samples.filter(fits).length >= samples.length * 0.9;
}

/** The first of the rows with most cells that are words. */
function headingOf(cells: readonly (readonly string[])[]): number {
  const words = cells.slice(0, HEAD_ROWS).map((row) => row.filter((cell) => /\p{L}{2,}/u.test(cell)).length);
  const best = Math.max(0, ...words);
  return Math.max(0, words.indexOf(best));
}
