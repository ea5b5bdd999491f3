import { createHash } from "node:crypto";

/** An entry of the audit trail as it is kept; `before` and `after` are JSON texts. */
export interface ChangeRow {
  id: number;
  at: string;
  person: number;
  action: string;
  entity: string;
  entityId: number | null;
  before: string | null;
  after: string | null;
  hash: string;
}

export const CHANGE_COLUMNS = `id, at, person_id AS person, action, entity, entity_id AS entityId,
  before, after, hash`;

/** The hash of an entry: SHA-256 over the hash of the one before and everything the entry says. */
export function hashOf(previous: string, entry: Omit<ChangeRow, "id" | "hash">): string {
  const { at, person, action, entity, entityId, before, after } = entry;
  const said = JSON.stringify([previous, at, person, action, entity, entityId, before, after]);
  return createHash("sha256").update(said).digest("hex");
}
