import { createHash } from "node:crypto";
import { hashOf } from "../../base/chain.ts";
import type { ChangeRow } from "../../base/chain.ts";
import type { Database } from "../../db/database.ts";

/** An entry of the one audit trail of before, which said whose it was. */
type OlderRow = Omit<ChangeRow, "hash"> & { client: number | null; hash: string | null };

const COLUMNS = `id, client_id AS client, at, person_id AS person, action, entity, entity_id AS entityId, before, after, hash`;
const PAGE = 1000;

/** The hash of an entry of the older trail. */
function olderHash(previous: string, row: OlderRow): string {
  const { client, at, person, action, entity, entityId, before, after } = row;
  const said = JSON.stringify([previous, client, at, person, action, entity, entityId, before, after]);
  return createHash("sha256").update(said).digest("hex");
}

/**
 * Chains what was of no client in the practice's own trail, after walking the older one to its end.
 * @returns the end of the older trail
 * @throws Error in words where it is broken
 */
export async function chainOfPractice(older: Database, practice: Database): Promise<string> {
  let last = "";
  const chain = new Chain(practice);
  for await (const row of rowsOf(older, "TRUE")) {
    if (row.hash !== null || last !== "") {
      if (row.hash !== olderHash(last, row))
        throw new Error(
          `Entry ${row.id} of the audit trail does not follow from the one before it. Nothing was changed.`,
        );
      last = row.hash;
    }
    if (row.client === null) await chain.add(row);
  }
  await chain.end(last);
  return last;
}

/** Chains the entries of a client in its own trail; the last one says where the older trail ended. */
export async function chainOfClient(
  older: Database,
  books: Database,
  client: number,
  last: string,
): Promise<void> {
  const chain = new Chain(books);
  for await (const row of rowsOf(older, `client_id = ${client}`)) await chain.add(row);
  await chain.end(last);
}

async function* rowsOf(older: Database, where: string): AsyncGenerator<OlderRow> {
  let after = 0;
  for (;;) {
    const rows = await older.rows<OlderRow>(
      `SELECT ${COLUMNS} FROM changes WHERE id > $1 AND ${where} ORDER BY id LIMIT ${PAGE}`,
      [after],
    );
    yield* rows;
    const end = rows.at(-1);
    if (!end) return;
    after = end.id;
  }
}

/** An audit trail that is written anew: its entries say what they said, and follow from each other. */
class Chain {
  readonly #db: Database;
  #rows: ChangeRow[] = [];
  #hash = "";
  #id = 0;

  constructor(db: Database) {
    this.#db = db;
  }

  async add({ hash: _hash, ...row }: OlderRow): Promise<void> {
    this.#push(row);
    if (this.#rows.length >= PAGE) await this.#write();
  }

  async end(olderTrail: string): Promise<void> {
    const { person, at } = this.#rows.at(-1) ?? { person: 1, at: new Date().toISOString() };
    const after = JSON.stringify({ from: "one database for all clients", olderTrail });
    const row = {
      id: this.#id,
      at,
      person,
      action: "convert",
      entity: "client",
      entityId: null,
      before: null,
      after,
    };
    this.#push(row);
    await this.#write();
  }

  #push(row: Omit<ChangeRow, "hash">): void {
    this.#id = Math.max(this.#id, row.id) + (row.id === this.#id ? 1 : 0);
    this.#hash = hashOf(this.#hash, row);
    this.#rows.push({ ...row, id: this.#id, hash: this.#hash });
  }

  async #write(): Promise<void> {
    const rows = this.#rows.map((row) => [
      row.id,
      row.at,
      row.person,
      row.action,
      row.entity,
      row.entityId,
      row.before,
      row.after,
      row.hash,
    ]);
    const columns = ["id", "at", "person_id", "action", "entity", "entity_id", "before", "after", "hash"];
    await this.#db.write((tx) => this.#db.bulk(tx, (bulk) => bulk.insert("changes", columns, rows)));
    this.#rows = [];
  }
}
