/** What can be done to something that is kept, as the audit trail has it. */
export type AuditAction =
  | "accept"
  | "adjust"
  | "agree"
  | "answer"
  | "archive"
  | "attach"
  | "authorise"
  | "change"
  | "connect"
  | "convert"
  | "correct"
  | "create"
  | "decide"
  | "default"
  | "delete"
  | "detach"
  | "drop"
  | "explain"
  | "fetch"
  | "file"
  | "in-review"
  | "keep"
  | "match"
  | "name"
  | "open"
  | "post"
  | "receive"
  | "record"
  | "remove"
  | "release"
  | "reopen"
  | "restore"
  | "seal"
  | "settle"
  | "unaccept"
  | "undo"
  | "unmatch"
  | "void";

/** What the audit trail can be about. */
export const AUDIT_ENTITIES = [
  "account",
  "adjustment",
  "bank-account",
  "bank-line",
  "bank-statement",
  "client",
  "code",
  "contact",
  "document",
  "entry",
  "finding",
  "import",
  "item",
  "capital-item",
  "jurisdiction",
  "law",
  "late-item",
  "payment",
  "piece",
  "place",
  "registration",
  "return",
  "rules",
  "schedule",
  "series",
  "statement",
  "tax-payment",
  "template",
  "terminal",
] as const;
export type AuditEntity = (typeof AUDIT_ENTITIES)[number];

/** An entry of the audit trail. `before` and `after` are what was kept, as the API takes it. */
export interface ChangeView {
  id: number;
  at: string;
  by: string;
  action: AuditAction;
  entity: AuditEntity;
  entityId: number | null;
  /** What it is about, by name; null where it has none, or is there no more. */
  subject: string | null;
  /** Names of what the versions hold by number, under `entity/number`. */
  names: Record<string, string>;
  before: unknown;
  after: unknown;
}

/** Whether all audit trails of a practice are whole: its own, and one in the books of each client. */
export interface AuditCheck {
  entries: number;
  /** Trails that are broken: whose, and the first entry that does not fit the one before it; null is the practice. */
  broken: { client: number | null; entry: number }[];
  /** Clients whose books cannot be opened, and why. */
  unreadable: { client: number; why: string }[];
  /** Sealed returns that do not hold any more what was sealed, by the hash that was taken then. */
  returns: { client: number; period: string }[];
  /** Signed notes of where the trails ended, and which of them do not fit any more, and why. */
  digests: { read: number; wrong: { file: string; client: number | null; why: string }[] };
  /** A hash over the last entries of all trails; noted elsewhere, it proves later that nothing was cut off. */
  last: string;
}

/** Whether one audit trail is whole. */
export interface ChainCheck {
  entries: number;
  /** The first entry that does not fit the one before it, or null where all do. */
  broken: number | null;
  /** The hash of the last entry; noted elsewhere, it proves later that nothing was cut off. */
  last: string;
}
