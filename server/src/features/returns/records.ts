import type { Database, Tx } from "../../db/database.ts";
import type { ReturnRecord } from "../../db/models.ts";
import { made } from "../../actor.ts";
import type { Actor } from "../../actor.ts";

/** The record of a period's return; undefined as long as nothing but documents happened to it. */
export async function returnRecord(
  db: Database,
  registrationId: number,
  periodEnd: string,
  tx?: Tx,
): Promise<ReturnRecord | undefined> {
  const row = await db.models.returns.findOne({
    where: { registrationId, periodEnd },
    ...(tx ? { transaction: tx } : {}),
  });
  return row ? (row.get({ plain: true }) as ReturnRecord) : undefined;
}

/** Creates or changes the record of a period's return. */
export async function saveReturn(
  db: Database,
  tx: Tx,
  actor: Actor,
  key: { clientId: number; registrationId: number; periodFrom: string; periodEnd: string },
  change: Partial<ReturnRecord>,
): Promise<void> {
  const { registrationId, periodEnd } = key;
  const [count] = await db.models.returns.update(change, {
    where: { registrationId, periodEnd },
    transaction: tx,
  });
  if (count === 0) await db.models.returns.create({ ...key, ...made(actor), ...change }, { transaction: tx });
}
