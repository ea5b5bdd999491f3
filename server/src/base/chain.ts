import { createHash } from "node:crypto";
import type { Work } from "./work.ts";

/** An entry of the audit trail as it is kept; `before` and `after` are JSON texts. */
export interface ChangeRow {
  id: number;
  client: number | null;
  at: string;
  person: number;
  action: string;
  entity: string;
  entityId: number | null;
  before: string | null;
  after: string | null;
  hash: string | null;
}

export const CHANGE_COLUMNS = `id, client_id AS client, at, person_id AS person, action, entity, entity_id AS entityId,
  before, after, hash`;

/** The hash of an entry: SHA-256 over the hash of the one before and everything the entry says. */
export function hashOf(previous: string, entry: Omit<ChangeRow, "id" | "hash">): string {
  const { client, at, person, action, entity, entityId, before, after } = entry;
  const said = JSON.stringify([previous, client, at, person, action, entity, entityId, before, after]);
  return createHash("sha256").update(said).digest("hex");
}

export interface ChainCheck {
  entries: number;
  /** Entries from before the trail was chained. */
  unchained: number;
  /** The first entry that does not fit the one before it, or null where all do. */
  broken: number | null;
  /** The hash of the last entry; noted elsewhere, it proves later that nothing was cut off. */
  last: string;
}

const PAGE = 1000;

/** Walks the whole trail and compares every hash. */
export async function checkChain(work: Work): Promise<ChainCheck> {
  const check: ChainCheck = { entries: 0, unchained: 0, broken: null, last: "" };
  let after = 0;
  for (;;) {
    const rows = await work.rows<ChangeRow>(
      `SELECT ${CHANGE_COLUMNS} FROM changes WHERE id > $1 ORDER BY id LIMIT ${PAGE}`,
      [after],
    );
    for (const row of rows) {
      check.entries += 1;
      if (row.hash === null && check.last === "") {
        check.unchained += 1;
        continue;
      }
      if (row.hash !== hashOf(check.last, row)) return { ...check, broken: row.id };
      check.last = row.hash;
    }
    const end = rows.at(-1);
    if (!end) return check;
    after = end.id;
  }
}
