import type { BookFile } from "@fiscalon/contract/book";
import type { LawFile } from "@fiscalon/contract/law";
import type { PlaceBody, RegistrationBody, RegistrationChangeBody } from "@fiscalon/contract/setup";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { ErrorBody, JobView } from "@fiscalon/contract/views";

/** What a worker can be asked to do. */
export type JobTask =
  | { kind: "import-check"; clientId: number; importId: number }
  | { kind: "import-post"; clientId: number; importId: number }
  | { kind: "import-undo"; clientId: number; importId: number }
  | { kind: "match"; clientId: number; statementId: number }
  | { kind: "change"; clientId: number; change: BooksChange }
  | { kind: "law"; step: LawStep }
  | { kind: "book"; book: BookFile };

/** A change of a client after which documents are worked out anew. */
export type BooksChange =
  | { what: "registration"; rid: string; body: RegistrationChangeBody }
  | { what: "new-registration"; body: RegistrationBody }
  | { what: "schedule"; ref: string; rows: RateRow[] }
  | { what: "place"; place: number; body: Partial<PlaceBody> };

/** A change of the law of the practice. */
export type LawStep =
  { what: "add"; change: LawChange } | { what: "remove"; id: number } | { what: "file"; file: LawFile };

/** A book that is to be written to a file. */
export interface BookOrder {
  clientId: number;
  papers: boolean;
  person: number;
  at: string;
  dataDir: string;
}

/** Where it is, or why it is not. */
export type BookWritten = { path: string } | { error: ErrorBody["error"] };

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
