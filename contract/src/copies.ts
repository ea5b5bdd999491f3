/** Copies of the practice, and what is being done with them. */
export interface CopiesView {
  /** The folder they are in. */
  folder: string;
  /** Where the server makes them by itself: how many hours apart, and how many are kept. */
  byItself: { hours: number; keep: number } | null;
  copies: CopyView[];
  running: { what: "copy" | "restore"; name: string | null } | null;
  /** How the last one that was asked for ended. */
  last: { ok: boolean; says: string } | null;
}

/** A finished copy, with what was proved of it when it was made. */
export interface CopyView {
  name: string;
  made: string;
  clients: number;
  documents: number;
  papers: number;
}
