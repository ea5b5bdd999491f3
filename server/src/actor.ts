import type { Database, Tx } from "./db/database.ts";

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

/** Notes a change in the audit trail, in the transaction that makes it. */
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
  await db.run(
    `INSERT INTO changes (client_id, at, person_id, action, entity, entity_id, before, after)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [
      change.client,
      actor.at,
      actor.person,
      change.action,
      change.entity,
      change.id,
      change.before === undefined ? null : JSON.stringify(change.before),
      change.after === undefined ? null : JSON.stringify(change.after),
    ],
    tx,
  );
}
