import type { BookFile } from "@fiscalon/contract/book";
import type { JobView } from "@fiscalon/contract/views";

/** What a worker can be asked to do. */
export type JobTask =
  | { kind: "import-check"; clientId: number; importId: number }
  | { kind: "import-post"; clientId: number; importId: number }
  | { kind: "import-undo"; clientId: number; importId: number }
  | { kind: "match"; clientId: number; statementId: number }
  | { kind: "book"; book: BookFile };

export interface JobMessage {
  done: number;
  total: number;
  message: string;
}

export interface JobOrder {
  id: number;
  /** Under which its end is noted in the books it works on. */
  key: string;
  task: JobTask;
  person: number;
  at: string;
  /** How far whoever started it had seen the audit trail. */
  seenUpTo?: number;
  dataDir: string;
}

export type JobOutcome = Pick<JobView, "state" | "result" | "error">;

/** How long work tells of its progress. */
export interface Progress {
  step(done: number, total: number, message: string): void;
}

/** Progress of work nobody watches. */
export const UNWATCHED: Progress = { step: () => undefined };
