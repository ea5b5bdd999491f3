import workerpool from "workerpool";
import { ERRORS } from "@fiscalon/contract/errors";
import { FiscalError } from "@fiscalon/core/errors";
import { errorBody } from "../base/errors.ts";
import { storageTrouble } from "../base/storageTrouble.ts";
import type { Work, Writing } from "../base/work.ts";
import { unsettledPeriods } from "../books/returns/unsettledPeriods.ts";
import { Practice } from "../practice/practice.ts";
import { matchStatement } from "../books/agree/statements/matchStatement.ts";
import { loadSetup } from "../books/loadSetup.ts";
import { importBook } from "../across/bookfile/importBook.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import { undoImport } from "../features/imports/undoImport.ts";
import type { JobMessage, JobOrder, JobOutcome, JobTask, Progress } from "./task.ts";

const progress: Progress = {
  step: (done, total, message) => workerpool.workerEmit({ done, total, message } satisfies JobMessage),
};

workerpool.worker({ work });

/** Runs one job in this process, on connections of its own. */
async function work(order: JobOrder): Promise<JobOutcome> {
  globalThis.gc?.();
  const practice = await Practice.open(order.dataDir, "");
  practice.summaries.tellPeriods(unsettledPeriods);
  try {
    return { state: "done", result: await run(practice, order), error: null };
  } catch (error) {
    if (error instanceof FiscalError) return { state: "failed", result: null, error: errorBody(error).error };
    const disk = storageTrouble(error);
    if (!disk) throw error;
    return { state: "failed", result: null, error: { code: disk, message: ERRORS[disk].says } };
  } finally {
    await practice.close();
  }
}

async function run(practice: Practice, { id, key, task, person, at, seenUpTo }: JobOrder): Promise<unknown> {
  if (task.kind === "book") {
    const end = (work: Writing, value: unknown) => noteDone(work, id, value);
    const work = await practice.begin({ person, at, around: { end } });
    return { client: await importBook(practice, work, task.book, progress, key) };
  }
  const end = (work: Writing, value: unknown) => noteEnd(work, key, value);
  const begun = { person, at, around: { end }, ...(seenUpTo === undefined ? {} : { seenUpTo }) };
  return practice.onClient(task.clientId, (work) => runOn(work, task), begun);
}

function runOn(work: Work, task: Exclude<JobTask, { kind: "book" }>): Promise<unknown> {
  switch (task.kind) {
    case "import-check":
      return checkImport(work, task.clientId, task.importId, progress);
    case "import-post":
      return postImport(work, task.clientId, task.importId, progress);
    case "import-undo":
      return undoImport(work, task.clientId, task.importId, progress);
    case "match":
      return match(work, task.clientId, task.statementId);
  }
}

async function match(work: Work, clientId: number, statement: number): Promise<{ statement: number }> {
  const told = (done: number, total: number, what: string) => progress.step(done, total, what);
  await matchStatement(work, await loadSetup(work, clientId), statement, told);
  return { statement };
}

/**
 * Work on books notes its end in them, in its own transaction: whoever starts again after a kill is told the truth. One
 * that was given up meanwhile has its end there already, and changes nothing.
 */
function noteEnd(work: Writing, key: string, value: unknown): Promise<void> {
  return work.run("INSERT INTO job_ends (key, state, result) VALUES ($1, 'done', $2)", [
    key,
    JSON.stringify(value ?? null),
  ]);
}

/** A client that is made is there with the transaction of the practice, and so is the end of the job that made it. */
async function noteDone(work: Writing, id: number, client: unknown): Promise<void> {
  const job = await work.row<{ state: string }>("SELECT state FROM jobs WHERE id = $1", [id]);
  if (job?.state !== "running") throw new Error(`Job ${id} was given up before it was done.`);
  await work.run("UPDATE jobs SET state = 'done', result = $2 WHERE id = $1", [
    id,
    JSON.stringify({ client }),
  ]);
}
