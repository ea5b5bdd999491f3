import workerpool from "workerpool";
import { FiscalError } from "@fiscalon/core/errors";
import { Database } from "../db/database.ts";
import { errorBody } from "../base/errors.ts";
import { PackShelf } from "../base/packShelf.ts";
import { Work } from "../base/work.ts";
import type { Writing } from "../base/work.ts";
import { matchStatement } from "../books/agree/statements/matchStatement.ts";
import { loadSetup } from "../books/loadSetup.ts";
import { importBook } from "../across/bookfile/importBook.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import type { JobMessage, JobOrder, JobOutcome, Progress } from "./task.ts";

const progress: Progress = {
  step: (done, total, message) => workerpool.workerEmit({ done, total, message } satisfies JobMessage),
};

workerpool.worker({ work });

/** Runs one job in this process, on a database connection of its own. */
async function work(order: JobOrder): Promise<JobOutcome> {
  const db = await Database.open(order.dataDir, "");
  try {
    const { dataDir, person, at } = order;
    const packs = await new PackShelf(db).packs();
    const around = { end: (work: Writing, value: unknown) => noteDone(work, order, value) };
    const result = await run(new Work({ db, dataDir, packs, person, at, around }), order);
    return { state: "done", result, error: null };
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    return { state: "failed", result: null, error: errorBody(error).error };
  } finally {
    await db.close();
  }
}

/**
 * A job is done in the transaction of its work: whoever starts the server again after a kill is told the truth. One that
 * was given up meanwhile changes nothing.
 */
async function noteDone(work: Writing, { id, task }: JobOrder, value: unknown): Promise<void> {
  const job = await work.row<{ state: string }>("SELECT state FROM jobs WHERE id = $1", [id]);
  if (job?.state !== "running") throw new Error(`Job ${id} was given up before it was done.`);
  const result = task.kind === "book" ? { client: value } : (value ?? null);
  await work.run("UPDATE jobs SET state = 'done', result = $2 WHERE id = $1", [id, JSON.stringify(result)]);
}

async function run(work: Work, { task }: JobOrder): Promise<unknown> {
  switch (task.kind) {
    case "import-check":
      return checkImport(work, task.clientId, task.importId, progress);
    case "import-post":
      return postImport(work, task.clientId, task.importId, progress);
    case "match": {
      const setup = await loadSetup(work, task.clientId);
      const told = (done: number, total: number, what: string) => progress.step(done, total, what);
      await matchStatement(work, setup, task.statementId, told);
      return { statement: task.statementId };
    }
    case "book":
      return { client: await importBook(work, task.book, progress) };
  }
}
