import { renameSync, rmSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { QueryTypes, Transaction } from "sequelize";
import type { Sequelize } from "sequelize";
import { Umzug } from "umzug";
import type { Migration } from "./migration.ts";

/** Where the steps that were done are noted; data folders of every version have it under this name. */
const DONE = "sequelize_meta";

/**
 * Brings a database to the newest shape. Each step and the note of it are one transaction: killed at any moment, the
 * next start goes on where this one was. Before a database with anything in it is changed, a copy is put beside it.
 * @param file the database; the copy goes beside it
 */
export async function migrate(
  sequelize: Sequelize,
  migrations: readonly Migration[],
  file: string,
): Promise<void> {
  await sequelize.query(
    `CREATE TABLE IF NOT EXISTS "${DONE}" (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)`,
  );
  const umzug = new Umzug({
    migrations: migrations.map(({ name, statements }) => ({
      name,
      up: () => step(sequelize, name, statements),
    })),
    storage: {
      // The step notes itself, in its own transaction.
      logMigration: () => Promise.resolve(),
      unlogMigration: () => Promise.resolve(),
      executed: () => done(sequelize),
    },
    logger: undefined,
  });
  const pending = await umzug.pending();
  if (pending.length > 0 && pending.length < migrations.length) await copyBefore(sequelize, file);
  await umzug.up();
}

async function done(sequelize: Sequelize): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>(`SELECT name FROM "${DONE}" ORDER BY name`, {
    type: QueryTypes.SELECT,
  });
  return rows.map(({ name }) => name);
}

async function step(sequelize: Sequelize, name: string, statements: readonly string[]): Promise<void> {
  await sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
    // Another process may have been quicker.
    const noted = await sequelize.query(`SELECT 1 FROM "${DONE}" WHERE name = $1`, {
      bind: [name],
      type: QueryTypes.SELECT,
      transaction,
    });
    if (noted.length > 0) return;
    for (const sql of statements) await sequelize.query(sql, { transaction });
    await sequelize.query(`INSERT INTO "${DONE}" (name) VALUES ($1)`, { bind: [name], transaction });
  });
}

/** A whole copy of the database as it was, named after the moment; a copy that was broken off is made again. */
async function copyBefore(sequelize: Sequelize, file: string): Promise<void> {
  const moment = new Date().toISOString().replace(/[:.]/g, "-");
  const [folder, name] = [dirname(file), basename(file, ".sqlite")];
  const unfinished = join(folder, `${name}-before-migration.unfinished.sqlite`);
  rmSync(unfinished, { force: true });
  await sequelize.query("VACUUM INTO $1", { bind: [unfinished] });
  renameSync(unfinished, join(folder, `${name}-before-migration-${moment}.sqlite`));
}
