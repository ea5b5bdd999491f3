/** Copies of the practice, and what is being done with them. */
export interface CopiesView {
  /** The folder they are in. */
  folder: string;
  /** Where the server makes them by itself: how many hours apart, and how many are kept. */
  byItself: { hours: number; keep: number } | null;
  /** Whether those made from now on are sealed. */
  sealed: boolean;
  copies: CopyView[];
  running: { what: "copy" | "restore"; name: string | null } | null;
  /** How the last one that was asked for ended. */
  last: { ok: boolean; says: string } | null;
}

/** A finished copy. */
export interface CopyView {
  name: string;
  made: string;
  sealed: boolean;
  /** What was proved of it when it was made; null where it cannot be read. */
  holds: { clients: number; documents: number; papers: number } | null;
  /** Why it cannot be read. */
  closed: string | null;
}
