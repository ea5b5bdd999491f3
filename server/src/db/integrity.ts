import { statSync } from "node:fs";
import type { Database } from "./database.ts";

/** Up to so many bytes a database is looked through before the server answers; a larger one while it does. */
const AT_ONCE = 256 * 1024 * 1024;

/**
 * Looks a database through at start.
 * @param told what a large one, that is looked through later, is found to lack
 * @throws Error in words, where it is damaged
 */
export async function requireWhole(db: Database, told: (error: Error) => void): Promise<void> {
  const { size } = statSync(db.file);
  const checked = damageOf(db).then((damage) => {
    if (damage === null) return;
    throw new Error(
      `The database ${db.file} is damaged: ${damage}. Nothing was changed. Bring a copy back with npm run restore.`,
    );
  });
  if (size <= AT_ONCE) return checked;
  checked.catch(told);
}

/** What a database finds wrong with itself, or null. */
export async function damageOf(db: Database): Promise<string | null> {
  const rows = await db.rows<{ quick_check: string }>("PRAGMA quick_check(3)");
  const found = rows.map((row) => row.quick_check).filter((word) => word !== "ok");
  return found.length === 0 ? null : found.join("; ");
}
