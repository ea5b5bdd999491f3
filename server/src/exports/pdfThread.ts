import { fileURLToPath } from "node:url";
import workerpool from "workerpool";
import type { ReportTable } from "./reportTable.ts";

const WORKER = fileURLToPath(new URL("../../dist/exports/pdfWorker.js", import.meta.url));

/** Lays out long tables in a thread of its own, begun with the first, so that nobody else waits for them. */
export class PdfThread {
  readonly #pool = workerpool.pool(WORKER, { workerType: "thread", maxWorkers: 1 });

  /** As tablePdf. */
  async table(table: ReportTable): Promise<Buffer> {
    return Buffer.from((await this.#pool.exec("tablePdf", [table])) as Uint8Array);
  }

  async end(): Promise<void> {
    await this.#pool.terminate();
  }
}
