import { parentPort, workerData } from "node:worker_threads";
import { FiscalError } from "@fiscalon/core/errors";
import { workbookSheets } from "./readRows.ts";
import type { WorkbookOrder, WorkbookRead } from "./workbookApart.ts";

/** Reads one workbook in a thread of its own; see workbookApart.ts. */
const { content, most } = workerData as WorkbookOrder;
parentPort?.postMessage(await read());

async function read(): Promise<WorkbookRead> {
  try {
    const sheets = await workbookSheets(Buffer.from(content));
    return { sheets: sheets.map(({ name, rows }) => ({ name, rows: rows.slice(0, most) })) };
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    const { code, message, field } = error;
    return { error: { code, message, field } };
  }
}
