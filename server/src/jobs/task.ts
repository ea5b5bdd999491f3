import type { MessagePort } from "node:worker_threads";
import { FiscalError } from "@fiscalon/core/errors";
import type { BookFile } from "@fiscalon/contract/book";
import type { Actor } from "../actor.ts";

/** What a worker can be asked to do. */
export type JobTask =
  | { kind: "import-check"; clientId: number; importId: number }
  | { kind: "import-post"; clientId: number; importId: number }
  | { kind: "book"; book: BookFile };

export interface JobMessage {
  done: number;
  total: number;
  message: string;
}

export interface JobOrder {
  task: JobTask;
  actor: Actor;
  dataDir: string;
  port: MessagePort;
  cancel: Int32Array;
}

/** How long work tells of its progress, and hears that it should stop. */
export interface Progress {
  /** @throws FiscalError `jobs/cancelled` when somebody asked to stop */
  step(done: number, total: number, message: string): void;
}

/** Progress of work nobody watches. */
export const UNWATCHED: Progress = { step: () => undefined };

export function progressOf(order: Pick<JobOrder, "port" | "cancel">): Progress {
  return {
    step(done, total, message) {
      if (Atomics.load(order.cancel, 0) === 1) {
        throw new FiscalError("jobs/cancelled", "Cancelled. Nothing was changed.");
      }
      order.port.postMessage({ done, total, message } satisfies JobMessage);
    },
  };
}
