import { unzipSync, zipSync } from "fflate";
import Papa from "papaparse";
import type { CellValue } from "read-excel-file/node";
import { FiscalError } from "@fiscalon/core/errors";
import { decoded } from "./files.ts";

/** What a workbook may come to when unpacked; a genuine register of 100,000 rows needs a fraction. */
const MOST_UNPACKED = 300 * 1024 * 1024;
const MOST_ROWS = 400_000;
const MOST_COLUMNS = 200;

export const WORKBOOK = "workbook";

/** A sheet of a workbook, as text. */
export interface Sheet {
  name: string;
  rows: string[][];
}

export function isWorkbook(content: Buffer): boolean {
  return content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004";
}

/** The cells of a table, row by row, from CSV or the first sheet with anything on it; each row is let go once it is read. */
export async function readRows(
  content: Buffer,
  encoding: string,
  delimiter: string,
): Promise<Iterable<string[]>> {
  return encoding === WORKBOOK ? workbookRows(content) : csvRows(decoded(content, encoding), delimiter);
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

/**
 * The first sheet of a workbook with anything on it, as text.
 * @throws FiscalError `imports/workbook`, `imports/too-large`
 */
export async function workbookRows(content: Buffer): Promise<string[][]> {
  return rowsOfFirst(await workbookSheets(content));
}

/** @throws FiscalError `formats/empty-file` where there is none */
export function rowsOfFirst([sheet]: readonly Sheet[]): string[][] {
  if (!sheet) throw new FiscalError("formats/empty-file", "The workbook is empty. Export it again.", "file");
  return sheet.rows;
}

/**
 * The sheets of a workbook that have anything on them, as text: dates as YYYY-MM-DD, formulas as their result. The
 * archive is unpacked here under a limit before the reader sees it, so that a small file cannot grow without end.
 * @throws FiscalError `imports/workbook`, `imports/too-large`
 */
export async function workbookSheets(content: Buffer): Promise<Sheet[]> {
  const archive = repacked(content);
  // Loaded with the first workbook: a server starts without it.
  const { default: readXlsx } = await import("read-excel-file/node");
  const sheets = await readXlsx(Buffer.from(archive), { parseNumber: plainNumber }).catch(() => {
    throw new FiscalError(
      "imports/workbook",
      "This is no workbook that can be read. Save it as .xlsx or as CSV and drop that.",
      "file",
    );
  });
  return sheets
    .filter(({ data }) => data.some((row) => row.some((cell) => cell !== null)))
    .map(({ sheet, data }) => ({ name: sheet, rows: sheetRows(data) }));
}

function sheetRows(rows: readonly (readonly (CellValue | null)[])[]): string[][] {
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  if (rows.length > MOST_ROWS || width > MOST_COLUMNS) {
    throw new FiscalError(
      "imports/too-large",
      `The sheet has ${rows.length} rows and ${width} columns; ${MOST_ROWS} and ${MOST_COLUMNS} can be read. Split it.`,
      "file",
    );
  }
  return rows.map((row) => Array.from({ length: width }, (_, at) => cellText(row[at] ?? null)));
}

function repacked(content: Buffer): Uint8Array {
  let unpacked = 0;
  try {
    const files = unzipSync(content, {
      filter: ({ originalSize }) => {
        unpacked += originalSize;
        if (unpacked > MOST_UNPACKED) throw tooLarge();
        return true;
      },
    });
    return zipSync(files, { level: 0 });
  } catch (error) {
    if (error instanceof FiscalError) throw error;
    throw new FiscalError(
      "imports/workbook",
      "The workbook is damaged. Save it again and drop that.",
      "file",
    );
  }
}

function tooLarge(): FiscalError {
  return new FiscalError(
    "imports/too-large",
    "Unpacked, this workbook is larger than any register. It is not opened; export the sheet as CSV.",
    "file",
  );
}

function cellText(value: CellValue | null): string {
  return value instanceof Date ? value.toISOString().slice(0, 10) : value === null ? "" : String(value);
}

/** 0.1 + 0.2 as a workbook keeps it is 0.3 on its screen: fifteen digits are what it shows. */
function plainNumber(kept: string): string {
  const value = Number(kept);
  const text = String(Number(value.toPrecision(15)));
  return text.includes("e") ? value.toFixed(6) : text;
}
