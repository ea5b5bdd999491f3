import workerpool from "workerpool";
import { FiscalError } from "@fiscalon/core/errors";
import { Database } from "../db/database.ts";
import { errorBody } from "../errors.ts";
import { importBook } from "../features/books/importBook.ts";
import { loadOwnPacks } from "../features/jurisdictions/ownPacks.ts";
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
    await loadOwnPacks(db);
    return { state: "done", result: await run(db, order), error: null };
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    return { state: "failed", result: null, error: errorBody(error).error };
  } finally {
    await db.close();
  }
}

async function run(db: Database, { task, actor, dataDir }: JobOrder): Promise<unknown> {
  switch (task.kind) {
    case "import-check":
      return checkImport(db, dataDir, task.clientId, task.importId, progress);
    case "import-post":
      return postImport(db, dataDir, actor, task.clientId, task.importId, progress);
    case "book":
      return { client: await importBook(db, dataDir, actor, task.book, progress) };
  }
}
