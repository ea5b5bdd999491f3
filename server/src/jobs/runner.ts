import { ERRORS } from "@fiscalon/contract/errors";
import { valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { EventEmitter } from "node:events";
import { fileURLToPath } from "node:url";
import workerpool from "workerpool";
import type { JobUnderWay, JobView } from "@fiscalon/contract/views";
import { randomUUID } from "node:crypto";
import type { Work } from "../base/work.ts";
import type { Models, JobRecord } from "../db/models.ts";
import type { Practice } from "../practice/practice.ts";
import { notFound } from "../base/errors.ts";
import type { BookOrder, BookWritten, JobMessage, JobOrder, JobOutcome, JobTask } from "./task.ts";

/**
 * Room that long work leaves behind is used again before more is asked for, which takes no longer, and is given back
 * before the next work begins.
 */
const SPARING = ["--heap-growing-percent=40", "--expose-gc"];

type Run = workerpool.Promise<JobOutcome>;

/**
 * Runs long work in processes of its own: the database driver does not survive the end of a thread that holds it.
 * A job is one transaction: all or nothing, also when it is cancelled or killed. Progress goes to whoever listens;
 * the outcome stays in the table of jobs.
 */
export class JobRunner {
  readonly #practice: Practice;
  readonly #pool: workerpool.Pool;
  readonly #running = new Map<number, { record: JobRecord; view: JobView; run: Run; end: Promise<void> }>();
  readonly #events = new EventEmitter();
  readonly #broke: (error: unknown) => void;

  /** @param broke told of what broke a job off, for the log */
  constructor(practice: Practice, broke: (error: unknown) => void) {
    this.#practice = practice;
    this.#broke = broke;
    this.#pool = workerpool.pool(WORKER, {
      workerType: "process",
      maxWorkers: 2,
      forkOpts: { execArgv: SPARING },
    });
    this.#events.setMaxListeners(0);
  }

  get #jobs(): Models["jobs"] {
    return this.#practice.db.models.jobs;
  }

  /** Says of the jobs that were running when the process last ended what became of them. */
  async recover(): Promise<void> {
    const open = await this.#jobs.findAll({ where: { state: ["waiting", "running"] } });
    for (const job of open)
      await job.update(await this.#truth(job.get({ plain: true }) as JobRecord, INTERRUPTED));
  }

  /**
   * What became of a job whose process is gone: it is done if it says so where it worked, for it says so in the
   * transaction of its work. Otherwise it is given up there, so that it changes nothing any more.
   */
  async #truth({ id, clientId, key }: JobRecord, otherwise: JobOutcome): Promise<JobOutcome> {
    if (clientId === null) {
      await this.#practice.clear(key);
      const row = await this.#jobs.findByPk(id);
      return row?.state === "done" ? doneWith(row.result) : otherwise;
    }
    const asked = this.#practice.onClient(clientId, (work) =>
      work.write(async (work) => {
        const end = await work.row<{ state: string; result: string }>(
          "SELECT state, result FROM job_ends WHERE key = $1",
          [key],
        );
        if (!end) await work.run("INSERT INTO job_ends (key, state) VALUES ($1, 'given-up')", [key]);
        return end?.state === "done" ? doneWith(JSON.parse(end.result)) : otherwise;
      }),
    );
    return asked.catch((error: unknown) => {
      this.#broke(error);
      return otherwise;
    });
  }

  /** Starts a job and returns at once. */
  async start({ person, at, seenUpTo }: Work, clientId: number | null, task: JobTask): Promise<JobView> {
    const key = randomUUID();
    const row = await this.#practice.db.write((transaction) =>
      this.#jobs.create(
        {
          clientId,
          key,
          kind: task.kind,
          state: "running",
          done: 0,
          total: 0,
          message: "",
          result: null,
          error: null,
          createdAt: at,
          createdBy: person,
        },
        { transaction },
      ),
    );
    const record = row.get({ plain: true }) as JobRecord;
    const view = viewOf(record);
    const order: JobOrder = {
      id: view.id,
      key,
      task,
      person,
      at,
      ...(seenUpTo === undefined ? {} : { seenUpTo }),
      dataDir: this.#practice.dataDir,
    };
    const run = this.#pool.exec("work", [order], {
      on: (message: JobMessage) => {
        Object.assign(view, message);
        this.#events.emit(String(view.id), view);
      },
    }) as Run;
    this.#running.set(view.id, { record, view, run, end: this.#finish(record, view, run) });
    return view;
  }

  async #finish(record: JobRecord, view: JobView, run: Run): Promise<void> {
    try {
      const outcome = await run;
      Object.assign(view, outcome);
    } catch (error) {
      const cancelled = error instanceof workerpool.Promise.CancellationError;
      if (!cancelled) this.#broke(error);
      Object.assign(view, await this.#truth(record, cancelled ? CANCELLED : BROKEN));
    }
    const { id, state, done, total, message, result, error } = view;
    await this.#practice.db.write((transaction) =>
      this.#jobs.update({ state, done, total, message, result, error }, { where: { id }, transaction }),
    );
    // Another process changed the books: whoever counts on them here is told.
    for (const client of await this.#changedBy(record)) this.#practice.summaries.touch(client);
    this.#running.delete(view.id);
    this.#events.emit(String(view.id), view);
  }

  /** The clients whose books a job may have changed. */
  async #changedBy({ clientId, kind }: JobRecord): Promise<number[]> {
    if (clientId !== null) return [clientId];
    const isOfAll = kind === ("law" satisfies JobTask["kind"]);
    return isOfAll ? (await this.#practice.clients()).map(({ id }) => id) : [];
  }

  /**
   * Has the book of a client written to a file in a process of its own, so that nobody waits for that.
   * @param signal whoever asked is gone: it is given up
   * @returns its path; whoever reads it takes it away
   * @throws FiscalError as its export
   */
  async writtenBook(
    { person, at }: Work,
    what: Pick<BookOrder, "clientId" | "papers">,
    signal: AbortSignal,
  ): Promise<string> {
    const order: BookOrder = { ...what, person, at, dataDir: this.#practice.dataDir };
    const run = this.#pool.exec("writeBook", [order]) as workerpool.Promise<BookWritten>;
    const giveUp = () => void run.cancel();
    signal.addEventListener("abort", giveUp);
    try {
      const written = await run;
      if ("path" in written) return written.path;
      const { code, message, field, details } = written.error;
      throw new FiscalError(code, message, field, details);
    } finally {
      signal.removeEventListener("abort", giveUp);
    }
  }

  async view(id: number): Promise<JobView> {
    const running = this.#running.get(id);
    if (running) return running.view;
    const row = await this.#jobs.findByPk(id);
    if (!row) throw notFound("This job");
    return viewOf(row.get({ plain: true }) as JobRecord);
  }

  /** What is under way, the oldest first. */
  async underWay(): Promise<JobUnderWay[]> {
    if (this.#running.size === 0) return [];
    const names = new Map((await this.#practice.clients()).map(({ id, name }) => [id, name]));
    return [...this.#running.values()].map(({ view, record: { clientId, createdAt } }) => ({
      job: view,
      client: clientId === null ? null : { id: clientId, name: valueAt(names, clientId) },
      at: createdAt,
    }));
  }

  /** Ends the process a job runs in, wherever it is; the database undoes what it did so far. */
  cancel(id: number): void {
    this.#running.get(id)?.run.cancel();
  }

  /** Calls `listener` with each change until the returned function is called. */
  listen(id: number, listener: (view: JobView) => void): () => void {
    this.#events.on(String(id), listener);
    return () => this.#events.off(String(id), listener);
  }

  /** Ends what runs; the jobs are marked as cancelled. */
  async close(): Promise<void> {
    const running = [...this.#running.values()];
    for (const { run } of running) run.cancel();
    await Promise.all(running.map(({ end }) => end));
    await this.#pool.terminate(true);
  }
}

const WORKER = fileURLToPath(new URL("../../dist/jobs/worker.js", import.meta.url));

const INTERRUPTED: JobOutcome = {
  state: "failed",
  result: null,
  error: { code: "jobs/interrupted", message: ERRORS["jobs/interrupted"].says },
};
const CANCELLED: JobOutcome = {
  state: "cancelled",
  result: null,
  error: { code: "jobs/cancelled", message: ERRORS["jobs/cancelled"].says },
};
const BROKEN: JobOutcome = {
  state: "failed",
  result: null,
  error: {
    code: "jobs/failed",
    message: ERRORS["jobs/failed"].says,
  },
};

function doneWith(result: unknown): JobOutcome {
  return { state: "done", result, error: null };
}

function viewOf({ id, kind, state, done, total, message, result, error }: JobRecord): JobView {
  return { id, kind, state, done, total, message, result, error };
}
