/** An entry of the audit trail. `before` and `after` are what was kept, as the API takes it. */
export interface ChangeView {
  id: number;
  at: string;
  by: string;
  action: string;
  entity: string;
  entityId: number | null;
  /** What it is about, by name; null where it has none, or is there no more. */
  subject: string | null;
  /** Names of what the versions hold by number, under `entity/number`. */
  names: Record<string, string>;
  before: unknown;
  after: unknown;
}

/** Whether the audit trail is whole. */
export interface ChainCheck {
  entries: number;
  /** Entries from before the trail was chained. */
  unchained: number;
  /** The first entry that does not fit the one before it, or null where all do. */
  broken: number | null;
  /** The hash of the last entry; noted elsewhere, it proves later that nothing was cut off. */
  last: string;
}
