import { FiscalError } from "@fiscalon/core/errors";
import type { JobView } from "@fiscalon/contract/views";
import { Database } from "../db/database.ts";
import { errorBody } from "../errors.ts";
import { importBook } from "../features/books/importBook.ts";
import { loadOwnPacks } from "../features/jurisdictions/ownPacks.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import type { JobOrder, Progress } from "./task.ts";
import { progressOf } from "./task.ts";

type Outcome = Pick<JobView, "state" | "result" | "error">;

/** Runs one job in this thread, on a database connection of its own. */
export default async function work(order: JobOrder): Promise<Outcome> {
  const db = await Database.open(order.dataDir, "");
  try {
    await loadOwnPacks(db);
    return { state: "done", result: await run(db, order, progressOf(order)), error: null };
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    const state = error.code === "jobs/cancelled" ? "cancelled" : "failed";
    return { state, result: null, error: errorBody(error).error };
  } finally {
    order.port.close();
    await db.close();
  }
}

async function run(db: Database, { task, actor, dataDir }: JobOrder, progress: Progress): Promise<unknown> {
  switch (task.kind) {
    case "import-check":
      return checkImport(db, dataDir, task.clientId, task.importId, progress);
    case "import-post":
      return postImport(db, dataDir, actor, task.clientId, task.importId, progress);
    case "book":
      return { client: await importBook(db, actor, task.book, progress) };
  }
}
