import { EventEmitter } from "node:events";
import { MessageChannel } from "node:worker_threads";
import { Piscina } from "piscina";
import type { JobView } from "@fiscalon/contract/views";
import type { Actor } from "../actor.ts";
import { made } from "../actor.ts";
import type { Database } from "../db/database.ts";
import type { JobRecord } from "../db/models.ts";
import { notFound } from "../errors.ts";
import type { JobMessage, JobTask } from "./task.ts";

/**
 * Runs long work in worker threads. A job is one transaction in its thread: all or nothing, also when it is
 * cancelled or the process is killed. Progress goes to whoever listens; the outcome stays in the table of jobs.
 */
export class JobRunner {
  readonly #db: Database;
  readonly #dataDir: string;
  readonly #pool: Piscina;
  readonly #running = new Map<number, { view: JobView; cancel: Int32Array }>();
  readonly #events = new EventEmitter();

  constructor(db: Database, dataDir: string) {
    this.#db = db;
    this.#dataDir = dataDir;
    this.#pool = new Piscina({
      filename: new URL("../../dist/jobs/worker.js", import.meta.url).href,
      minThreads: 0,
      maxThreads: 2,
      idleTimeout: 60_000,
    });
    this.#events.setMaxListeners(0);
  }

  /** Jobs that were running when the process last ended did nothing; they are marked so. */
  async recover(): Promise<void> {
    await this.#db.models.jobs.update(
      {
        state: "failed",
        error: {
          code: "jobs/interrupted",
          message: "The server stopped before this was finished. Nothing was changed; start it again.",
        },
      },
      { where: { state: ["waiting", "running"] } },
    );
  }

  /** Starts a job and returns at once. */
  async start(actor: Actor, clientId: number | null, task: JobTask): Promise<JobView> {
    const row = await this.#db.models.jobs.create({
      clientId,
      kind: task.kind,
      state: "running",
      done: 0,
      total: 0,
      message: "",
      result: null,
      error: null,
      ...made(actor),
    });
    const view = viewOf(row.get({ plain: true }) as JobRecord);
    const cancel = new Int32Array(new SharedArrayBuffer(4));
    this.#running.set(view.id, { view, cancel });
    void this.#run(view, cancel, task, actor);
    return view;
  }

  async #run(view: JobView, cancel: Int32Array, task: JobTask, actor: Actor): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    port1.on("message", (message: JobMessage) => {
      Object.assign(view, message);
      this.#events.emit(String(view.id), view);
    });
    try {
      const outcome = (await this.#pool.run(
        { task, actor, dataDir: this.#dataDir, port: port2, cancel },
        { transferList: [port2] },
      )) as Pick<JobView, "state" | "result" | "error">;
      Object.assign(view, outcome);
    } catch {
      view.state = "failed";
      view.error = {
        code: "jobs/failed",
        message: "The work broke off on the server; nothing was changed. See the log.",
      };
    } finally {
      port1.close();
    }
    await this.#db.models.jobs.update(
      {
        state: view.state,
        done: view.done,
        total: view.total,
        message: view.message,
        result: view.result,
        error: view.error,
      },
      { where: { id: view.id } },
    );
    this.#running.delete(view.id);
    this.#events.emit(String(view.id), view);
  }

  async view(id: number): Promise<JobView> {
    const running = this.#running.get(id);
    if (running) return running.view;
    const row = await this.#db.models.jobs.findByPk(id);
    if (!row) throw notFound("This job");
    return viewOf(row.get({ plain: true }) as JobRecord);
  }

  /** Asks a job to stop at its next step; what it did so far is undone. */
  cancel(id: number): void {
    const running = this.#running.get(id);
    if (running) Atomics.store(running.cancel, 0, 1);
  }

  /** Calls `listener` with each change until the returned function is called. */
  listen(id: number, listener: (view: JobView) => void): () => void {
    this.#events.on(String(id), listener);
    return () => this.#events.off(String(id), listener);
  }

  async close(): Promise<void> {
    for (const { cancel } of this.#running.values()) Atomics.store(cancel, 0, 1);
    await this.#pool.close({ force: false }).catch(() => undefined);
    await this.#pool.destroy();
  }
}

function viewOf({ id, kind, state, done, total, message, result, error }: JobRecord): JobView {
  return { id, kind, state, done, total, message, result, error };
}
