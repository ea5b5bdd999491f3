import { Worker } from "node:worker_threads";
import { fileURLToPath } from "node:url";
import { FiscalError } from "@fiscalon/core/errors";
import { rowsOfFirst } from "./readRows.ts";
import type { Sheet } from "./readRows.ts";

export interface WorkbookOrder {
  content: Uint8Array;
  /** So many rows of each sheet are wanted. */
  most: number;
}

export type WorkbookRead =
  { sheets: Sheet[] } | { error: { code: string; message: string; field: string | undefined } };

const THREAD = fileURLToPath(new URL("../../dist/base/workbookThread.js", import.meta.url));

/**
 * The sheets of a workbook that have anything on them, read in a thread of its own: a long one takes seconds, and nobody
 * else waits for them.
 * @throws FiscalError as `workbookSheets`
 */
export async function sheetsApart(content: Buffer, most = Infinity): Promise<Sheet[]> {
  const order: WorkbookOrder = { content, most };
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

/**
 * The first sheet with anything on it, read apart.
 * @throws FiscalError `formats/empty-file`, and as `workbookSheets`
 */
export async function rowsApart(content: Buffer, most = Infinity): Promise<string[][]> {
  return rowsOfFirst(await sheetsApart(content, most));
}
