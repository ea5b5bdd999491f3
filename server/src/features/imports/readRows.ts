import ExcelJS from "exceljs";
import { unzipSync, zipSync } from "fflate";
import Papa from "papaparse";
import { FiscalError } from "@fiscalon/core/errors";
import { decoded } from "../../base/files.ts";

/** What a workbook may come to when unpacked; a genuine register of 100,000 rows needs a fraction. */
const MOST_UNPACKED = 300 * 1024 * 1024;
const MOST_ROWS = 400_000;
const MOST_COLUMNS = 200;

export const WORKBOOK = "workbook";

export function isWorkbook(content: Buffer): boolean {
  return content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004";
}

/** The cells of a table, row by row, from CSV or the first sheet with anything on it. */
export async function readRows(content: Buffer, encoding: string, delimiter: string): Promise<string[][]> {
  if (encoding === WORKBOOK) return workbookRows(content);
  const text = decoded(content, encoding);
  return Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false }).data;
}

/**
 * The first sheet of a workbook as text: dates as YYYY-MM-DD, formulas as their result. The archive is unpacked here
 * under a limit before the reader sees it, so that a small file cannot grow without end.
 * @throws FiscalError `imports/workbook`, `imports/too-large`
 */
export async function workbookRows(content: Buffer): Promise<string[][]> {
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(repacked(content) as unknown as ExcelJS.Buffer);
  } catch (error) {
    if (error instanceof FiscalError) throw error;
    throw new FiscalError(
      "imports/workbook",
      "This is no workbook that can be read. Save it as .xlsx or as CSV and drop that.",
      "file",
    );
  }
  const sheet = workbook.worksheets.find((one) => one.actualRowCount > 0);
  if (!sheet) throw new FiscalError("formats/empty-file", "The workbook is empty. Export it again.", "file");
  if (sheet.rowCount > MOST_ROWS || sheet.columnCount > MOST_COLUMNS) {
    throw new FiscalError(
      "imports/too-large",
      `The sheet has ${sheet.rowCount} rows and ${sheet.columnCount} columns; ${MOST_ROWS} and ${MOST_COLUMNS} can be read. Split it.`,
      "file",
    );
  }
  const rows: string[][] = [];
  const width = sheet.columnCount;
  sheet.eachRow({ includeEmpty: true }, (row) => {
    rows.push(Array.from({ length: width }, (_, at) => cellText(row.getCell(at + 1).value)));
  });
  return rows;
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

function cellText(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return "";
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== "object") return plainNumber(value);
  if ("richText" in value) return value.richText.map(({ text }) => text).join("");
  if ("result" in value) return cellText(value.result as ExcelJS.CellValue);
  if ("text" in value) return cellText(value.text as ExcelJS.CellValue);
  return "";
}

/** 0.1 + 0.2 as a workbook keeps it is 0.3 on its screen: fifteen digits are what it shows. */
function plainNumber(value: string | number | boolean): string {
  if (typeof value !== "number") return String(value);
  const text = String(Number(value.toPrecision(15)));
  return text.includes("e") ? value.toFixed(6) : text;
}
