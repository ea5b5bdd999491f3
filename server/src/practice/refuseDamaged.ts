import { statSync } from "node:fs";
import { FiscalError } from "@fiscalon/core/errors";
import { CHANGE_COLUMNS, hashOf } from "../base/chain.ts";
import type { ChangeRow } from "../base/chain.ts";
import type { Database } from "../db/database.ts";
import { damageOf } from "../db/integrity.ts";

/** Up to so many bytes books are looked through before anybody works on them, larger ones meanwhile. */
const AT_ONCE = 64 * 1024 * 1024;
/** Entries at the end of the audit trail that are looked at. */
const TAIL = 20;

/**
 * Looks at books when they are first opened: the file, the end of its audit trail, and whether what the practice knows
 * was acknowledged is there: a log that is damaged is passed over by the database without a word.
 * @param stamp the last entry of the trail that the practice knows of
 * @param told of damage in a large file, which is looked through while people work on it
 * @throws FiscalError `client/damaged`
 */
export async function refuseDamaged(
  db: Database,
  folder: string,
  stamp: number,
  told: (error: FiscalError) => void,
): Promise<void> {
  const tail = await tailDamage(db, stamp);
  if (tail !== null) throw damagedBooks(folder, tail);
  const looking = damageOf(db);
  if (statSync(db.file).size > AT_ONCE) {
    // The file may be closed before it was looked through: then it is next time.
    looking.then((found) => found !== null && told(damagedBooks(folder, found))).catch(() => undefined);
    return;
  }
  const found = await looking;
  if (found !== null) throw damagedBooks(folder, found);
}

/** What whoever asks for damaged books is told. */
export function damagedBooks(folder: string, found: string): FiscalError {
  return new FiscalError(
    "client/damaged",
    `The books in ${folder} are damaged: ${found}. Nothing was changed. Bring a copy back with npm run restore.`,
  );
}

async function tailDamage(db: Database, stamp: number): Promise<string | null> {
  const rows = (
    await db.rows<ChangeRow>(`SELECT ${CHANGE_COLUMNS} FROM changes ORDER BY id DESC LIMIT ${TAIL + 1}`)
  ).reverse();
  const last = rows.at(-1)?.id ?? 0;
  if (last < stamp)
    return `entries ${last + 1} to ${stamp} of the audit trail were acknowledged and are gone`;
  for (const [index, row] of rows.entries()) {
    const before = rows[index - 1];
    if (before && row.hash !== hashOf(before.hash, row))
      return `entry ${row.id} of the audit trail does not follow from the one before it`;
  }
  return null;
}
