import { Worker } from "node:worker_threads";
import { fileURLToPath } from "node:url";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";

/** A sheet of a workbook, read. */
export interface Sheet {
  name: string;
  rows: string[][];
}

/** What is read of a workbook: all of its sheets, the first rows of the first one, or some rows of it, from 1. */
export type Wanted = { sheets: "all" } | { first: number } | { rows: ReadonlySet<number> };

export interface WorkbookOrder {
  content: Uint8Array;
  wanted: Wanted;
}

export type WorkbookRead =
  { sheets: Sheet[] } | { error: { code: string; message: string; field: string | undefined } };

const THREAD = fileURLToPath(new URL("../../../dist/base/workbook/thread.js", import.meta.url));

/**
 * The sheets of a workbook that have anything on them, read in a thread of its own: a long one takes seconds, and nobody
 * else waits for them.
 * @throws FiscalError as `openSheets`
 */
export function sheetsApart(content: Buffer): Promise<Sheet[]> {
  return readApart(content, { sheets: "all" });
}

/**
 * The first rows of the first sheet with anything on it, read apart.
 * @throws FiscalError as `openFirstSheet`
 */
export async function firstSheetApart(content: Buffer, most = Infinity): Promise<string[][]> {
  return (await readApart(content, { first: most })).flatMap(({ rows }) => rows);
}

/**
 * Some rows of the first sheet with anything on it, by their number from 1, read apart.
 * @throws FiscalError as `openFirstSheet`
 */
export async function rowsApart(
  content: Buffer,
  rows: ReadonlySet<number>,
): Promise<Map<number, readonly string[]>> {
  const read = await readApart(content, { rows });
  const numbers = [...rows].toSorted((one, other) => one - other);
  return new Map(read.flatMap((sheet) => sheet.rows).map((cells, index) => [at(numbers, index), cells]));
}

async function readApart(content: Buffer, wanted: Wanted): Promise<Sheet[]> {
  const order: WorkbookOrder = { content, wanted };
  const thread = new Worker(THREAD, { workerData: order });
  const read = await new Promise<WorkbookRead>((done, failed) => {
    thread.once("message", done);
    thread.once("error", failed);
  });
  await thread.terminate();
  if ("sheets" in read) return read.sheets;
  const { code, message, field } = read.error;
  throw new FiscalError(code, message, field);
}
