import type { Database } from "../../db/database.ts";
import { QueryTypes } from "sequelize";

/** Which rows of a table are taken, as SQL of ours; `*` names the client whose rows are taken of every other table. */
export interface Taken {
  [table: string]: string | number | undefined;
  "*"?: number;
}

/** Tables whose rows are chained anew. */
const NOT_COPIED = new Set(["changes", "sequelize_meta", "job_ends"]);

/** Copies rows of an older database, table by table, into one that has the same columns. */
export async function copyRows(target: Database, older: string, taken: Taken): Promise<void> {
  const { sequelize } = target;
  const all = <T extends object>(sql: string): Promise<T[]> =>
    sequelize.query<T>(sql, { type: QueryTypes.SELECT });
  await sequelize.query("PRAGMA foreign_keys = OFF");
  await sequelize.query("ATTACH $1 AS older", { bind: [older] });
  await sequelize.query("BEGIN IMMEDIATE");
  for (const name of await parentsFirst(all)) {
    if (NOT_COPIED.has(name)) continue;
    const where =
      taken[name] ?? (taken["*"] === undefined ? undefined : await ofClient(all, name, taken["*"]));
    if (where === undefined) continue;
    const columns = await all<{ name: string }>(
      `SELECT m.name FROM pragma_table_info('${name}', 'main') m
       JOIN pragma_table_info('${name}', 'older') o ON o.name = m.name`,
    );
    if (columns.length === 0) continue;
    const list = columns.map((column) => `"${column.name}"`).join(", ");
    await sequelize.query(
      `INSERT INTO main."${name}" (${list}) SELECT ${list} FROM older."${name}" WHERE ${where}`,
    );
  }
  await sequelize.query("COMMIT");
  await sequelize.query("DETACH older");
  const broken = await all<{ table: string }>("PRAGMA foreign_key_check");
  if (broken.length > 0)
    throw new Error(`Rows of ${broken[0]?.table ?? "a table"} point to nothing. Nothing was changed.`);
  await sequelize.query("PRAGMA foreign_keys = ON");
}

/** The tables, each behind those its rows point to: triggers that keep sums look them up. */
async function parentsFirst(all: <T extends object>(sql: string) => Promise<T[]>): Promise<Set<string>> {
  const tables = await all<{ name: string }>(
    "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'",
  );
  const begun = new Set<string>();
  const ordered = new Set<string>();
  const place = async (name: string): Promise<void> => {
    if (begun.has(name)) return;
    begun.add(name);
    const parents = await all<{ table: string }>(`SELECT "table" FROM pragma_foreign_key_list('${name}')`);
    for (const { table } of parents) await place(table);
    ordered.add(name);
  };
  for (const { name } of tables) await place(name);
  return ordered;
}

/** The rows of one client: by its number, or by the rows they hang on. */
async function ofClient(
  all: <T extends object>(sql: string) => Promise<T[]>,
  table: string,
  client: number,
): Promise<string> {
  if (await has(all, table, "client_id")) return `client_id = ${client}`;
  const parents = await all<{ from: string; table: string }>(
    `SELECT "from", "table" FROM pragma_foreign_key_list('${table}')`,
  );
  for (const parent of parents)
    if (await has(all, parent.table, "client_id"))
      return `"${parent.from}" IN (SELECT id FROM older."${parent.table}" WHERE client_id = ${client})`;
  throw new Error(`Nothing says whose the rows of ${table} are.`);
}

async function has(
  all: <T extends object>(sql: string) => Promise<T[]>,
  table: string,
  column: string,
): Promise<boolean> {
  const rows = await all(`SELECT 1 FROM pragma_table_info('${table}', 'older') WHERE name = '${column}'`);
  return rows.length > 0;
}
