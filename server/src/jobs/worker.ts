import workerpool from "workerpool";
import { ERRORS } from "@fiscalon/contract/errors";
import { FiscalError } from "@fiscalon/core/errors";
import { errorBody } from "../base/errors.ts";
import { passingFile } from "../base/stagingFile.ts";
import { storageTrouble } from "../base/storageTrouble.ts";
import type { Work, Writing } from "../base/work.ts";
import { unsettledPeriods } from "../books/returns/unsettledPeriods.ts";
import { Practice } from "../practice/practice.ts";
import { matchStatement } from "../books/agree/statements/matchStatement.ts";
import { loadSetup } from "../books/loadSetup.ts";
import { exportBook } from "../across/bookfile/exportBook.ts";
import { importBook } from "../across/bookfile/importBook.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import { undoImport } from "../features/imports/undoImport.ts";
import { registerAndRecount } from "../features/clients/registerAndRecount.ts";
import { changedLaw } from "../features/law/changes.ts";
import { changePlace } from "../features/setup/places.ts";
import { changeRegistration } from "../features/setup/registrations.ts";
import { saveSchedule } from "../features/setup/schedules.ts";
import { givingWay } from "./giveWay.ts";
import type { Progress } from "../base/progress.ts";
import type { BookOrder, BookWritten, JobMessage, JobOrder, JobOutcome, JobTask } from "./task.ts";

const progress: Progress = {
  step: (done, total, message) => workerpool.workerEmit({ done, total, message } satisfies JobMessage),
};

workerpool.worker({ work, writeBook });

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

/** Writes a book to a file beside the books; whoever asked for it takes it away. */
async function writeBook({ dataDir, clientId, papers, person, at }: BookOrder): Promise<BookWritten> {
  globalThis.gc?.();
  const practice = await Practice.open(dataDir, "");
  try {
    return await practice.onClient(
      clientId,
      async (work) => {
        const book = await exportBook(work, clientId, { papers });
        return { path: passingFile(work.folder, JSON.stringify(book)) };
      },
      { person, at },
    );
  } catch (error) {
    if (error instanceof FiscalError) return { error: errorBody(error).error };
    throw error;
  } finally {
    await practice.close();
  }
}

async function run(practice: Practice, { id, key, task, person, at, seenUpTo }: JobOrder): Promise<unknown> {
  if (task.kind === "book") {
    const end = (work: Writing, client: unknown) => noteDone(work, id, { client });
    const work = await practice.begin({ person, at, around: { end } });
    return { client: await importBook(practice, work, task.book, progress, key) };
  }
  const begun = { person, at, ...(seenUpTo === undefined ? {} : { seenUpTo }) };
  if (task.kind === "law") {
    const end = (work: Writing) => noteDone(work, id, null);
    return changedLaw(practice, await practice.begin({ ...begun, around: { end } }), task.step, progress);
  }
  const end = (work: Writing, value: unknown) => noteEnd(work, key, value);
  return practice.onClient(task.clientId, (work) => runOn(work, task), { ...begun, around: { end } });
}

function runOn(work: Work, task: Exclude<JobTask, { kind: "book" | "law" }>): Promise<unknown> {
  switch (task.kind) {
    case "import-check":
      return checkImport(work, task.clientId, task.importId, progress);
    case "import-post":
      return postImport(work, task.clientId, task.importId, progress);
    case "import-undo":
      return undoImport(work, task.clientId, task.importId, progress);
    case "match":
      return match(work, task.clientId, task.statementId);
    case "change":
      return givingWay(work.database, progress, (locked) => changed(work, task, locked));
  }
}

/** What the request that asked for it would have answered. */
function changed(
  work: Work,
  { clientId, change }: JobTask & { kind: "change" },
  locked: Progress,
): Promise<unknown> {
  switch (change.what) {
    case "registration":
      return changeRegistration(work, clientId, change.rid, change.body, locked);
    case "new-registration":
      return registerAndRecount(work, clientId, change.body, locked);
    case "schedule":
      return saveSchedule(work, clientId, change.ref, change.rows, locked);
    case "place":
      return changePlace(work, clientId, change.place, change.body, locked);
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

/** What is there with the transaction of the practice is there together with the end of the job that made it. */
async function noteDone(work: Writing, id: number, result: unknown): Promise<void> {
  const job = await work.row<{ state: string }>("SELECT state FROM jobs WHERE id = $1", [id]);
  if (job?.state !== "running") throw new Error(`Job ${id} was given up before it was done.`);
  await work.run("UPDATE jobs SET state = 'done', result = $2 WHERE id = $1", [id, JSON.stringify(result)]);
}
