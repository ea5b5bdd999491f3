import { join } from "node:path";
import sqlite3 from "sqlite3";
import type { TestServer } from "./testServer.ts";

/** Rows that keep their numbers: the client itself, and people. */
const KEPT = new Set(["clients", "people", "changes"]);

/**
 * Gives all rows of a client's books other numbers. Each client counts for itself, so that what two of them have bears
 * the same numbers; after this a number of one is none of the other's.
 */
export async function shiftIds(server: TestServer, base: string, by: number): Promise<void> {
  const file = join(server.dataDir, "clients", base.split("/").at(-1) ?? "", "books.sqlite");
  const db = new sqlite3.Database(file);
  const all = <T>(sql: string) =>
    new Promise<T[]>((done, failed) => db.all<T>(sql, (error, rows) => (error ? failed(error) : done(rows))));
  await all("PRAGMA foreign_keys = OFF");
  const tables = await all<{ name: string }>(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'",
  );
  // Sums that are kept move with their rows and are not summed anew.
  const triggers = await all<{ name: string; sql: string }>(
    "SELECT name, sql FROM sqlite_master WHERE type = 'trigger'",
  );
  await all("BEGIN IMMEDIATE");
  for (const { name } of triggers) await all(`DROP TRIGGER "${name}"`);
  for (const { name } of tables) {
    const columns = await all<{ name: string }>(`SELECT name FROM pragma_table_info('${name}')`);
    const keys = await all<{ from: string; table: string }>(
      `SELECT "from", "table" FROM pragma_foreign_key_list('${name}')`,
    );
    const moved = keys.filter(({ table }) => !KEPT.has(table)).map(({ from }) => from);
    if (!KEPT.has(name) && columns.some((column) => column.name === "id")) moved.push("id");
    // Away from the numbers that are there first, so that no two rows meet.
    for (const step of [-1_000_000, 1_000_000 + by])
      for (const column of new Set(moved))
        await all(`UPDATE "${name}" SET "${column}" = "${column}" + ${step}`);
  }
  for (const key of ["contact", "place"])
    await all(
      `UPDATE templates SET body = json_set(body, '$.${key}', (body ->> '${key}') + ${by}) WHERE body ->> '${key}' IS NOT NULL`,
    );
  for (const { sql } of triggers) await all(sql);
  await all("COMMIT");
  await new Promise((closed) => db.close(closed));
}
