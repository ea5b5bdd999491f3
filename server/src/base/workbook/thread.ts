import { parentPort, workerData } from "node:worker_threads";
import { FiscalError } from "@fiscalon/core/errors";
import type { Sheet, Wanted, WorkbookOrder, WorkbookRead } from "./apart.ts";
import { openFirstSheet, openSheets } from "./sheets.ts";
import { tooLarge } from "./unreadable.ts";

/** Signs of all cells that are handed over: a text that is written once may stand in every cell. */
const MOST_SIGNS = 300 * 1024 * 1024;

/** Reads one workbook in a thread of its own; see apart.ts. */
const { content, wanted } = workerData as WorkbookOrder;
parentPort?.postMessage(await answer(Buffer.from(content)));

async function answer(workbook: Buffer): Promise<WorkbookRead> {
  try {
    return { sheets: await read(workbook, wanted) };
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    const { code, message, field } = error;
    return { error: { code, message, field } };
  }
}

async function read(workbook: Buffer, wanted: Wanted): Promise<Sheet[]> {
  if ("sheets" in wanted) {
    const sheets = [...(await openSheets(workbook))];
    return sheets.map(({ name, rows }) => ({ name, rows: held(rows(), () => true, Infinity) }));
  }
  const { name, rows } = await openFirstSheet(workbook);
  if ("first" in wanted) return [{ name, rows: held(rows(), () => true, wanted.first) }];
  return [{ name, rows: held(rows(), (row) => wanted.rows.has(row), Math.max(...wanted.rows)) }];
}

/** The rows that are wanted, up to the last that may be. */
function held(rows: Iterable<string[]>, isWanted: (row: number) => boolean, last: number): string[][] {
  const kept: string[][] = [];
  let [row, signs] = [0, 0];
  for (const cells of rows) {
    row += 1;
    if (row > last) break;
    if (!isWanted(row)) continue;
    signs += cells.reduce((sum, cell) => sum + cell.length, 0);
    if (signs > MOST_SIGNS) throw tooLarge();
    kept.push(cells);
  }
  return kept;
}
