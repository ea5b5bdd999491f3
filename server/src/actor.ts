import type { Database, Tx } from "./db/database.ts";
import { hashOf } from "./features/audit/chain.ts";

/** Who does something, and when. Until sign-in exists there is one person. */
export interface Actor {
  person: number;
  at: string;
}

export function actorNow(person = 1): Actor {
  return { person, at: new Date().toISOString() };
}

export function made(actor: Actor): { createdAt: string; createdBy: number } {
  return { createdAt: actor.at, createdBy: actor.person };
}

/** Notes a change at the end of the audit trail's chain, in the transaction that makes it. */
export async function recordChange(
  db: Database,
  tx: Tx,
  actor: Actor,
  change: {
    client: number | null;
    action: string;
    entity: string;
    id: number | null;
    before?: unknown;
    after?: unknown;
  },
): Promise<void> {
  const entry = {
    client: change.client,
    at: actor.at,
    person: actor.person,
    action: change.action,
    entity: change.entity,
    entityId: change.id,
    before: change.before === undefined ? null : JSON.stringify(change.before),
    after: change.after === undefined ? null : JSON.stringify(change.after),
  };
  const last = await db.row<{ hash: string | null }>(
    "SELECT hash FROM changes ORDER BY id DESC LIMIT 1",
    [],
    tx,
  );
  await db.run(
    `INSERT INTO changes (client_id, at, person_id, action, entity, entity_id, before, after, hash)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [...Object.values(entry), hashOf(last?.hash ?? "", entry)],
    tx,
  );
}
