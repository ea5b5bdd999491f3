import Papa from "papaparse";
import { decoded } from "./files.ts";
import { openFirstSheet } from "./workbook/sheets.ts";

export const WORKBOOK = "workbook";

/** The rows of a table, each let go once it is read, and how many they are, about. */
export interface TableRows {
  rows: Iterable<string[]>;
  about: number;
}

/**
 * The cells of a table, row by row, from CSV or the first sheet with anything on it.
 * @throws FiscalError as `openFirstSheet`
 */
export async function readRows(content: Buffer, encoding: string, delimiter: string): Promise<TableRows> {
  if (encoding !== WORKBOOK)
    return { rows: csvRows(decoded(content, encoding), delimiter), about: linesOf(content) };
  const { rows, about } = await openFirstSheet(content);
  return { rows: rows(), about };
}

const LINE_END = 10;

function linesOf(bytes: Buffer): number {
  let count = 1;
  for (let at = bytes.indexOf(LINE_END); at !== -1; at = bytes.indexOf(LINE_END, at + 1)) count += 1;
  return count;
}

/** Signs that are cut into rows at once. */
const WINDOW = 256 * 1024;

/** The rows of a CSV text, cut window by window. @param window signs of one; a row that is longer widens it */
export function* csvRows(text: string, delimiter: string, window = WINDOW): Generator<string[]> {
  const { linebreak } = Papa.parse(text.slice(0, 4 * WINDOW), { delimiter, preview: 1 }).meta;
  const parser = new Papa.Parser({ delimiter, newline: linebreak as "\n" });
  for (let [from, room] = [0, window]; from < text.length;) {
    const last = from + room >= text.length;
    const { data, meta } = parser.parse(text.slice(from, from + room), 0, !last) as Papa.ParseResult<
      string[]
    >;
    yield* data;
    if (last) return;
    from += meta.cursor;
    room = meta.cursor === 0 ? room * 2 : window;
  }
}
