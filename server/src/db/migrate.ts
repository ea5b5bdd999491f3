import { renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { QueryTypes, Transaction } from "sequelize";
import type { Sequelize } from "sequelize";
import { Umzug } from "umzug";
import { firstTables } from "./migrations/2026-11-24-first-tables.ts";
import { accountRegion } from "./migrations/2026-11-28-account-region.ts";
import { amendments } from "./migrations/2026-11-28-amendments.ts";
import { auditChain } from "./migrations/2026-11-25-audit-chain.ts";
import { documentTotals } from "./migrations/2026-11-25-document-totals.ts";
import { dueDates } from "./migrations/2026-11-28-due-dates.ts";
import { feeds } from "./migrations/2026-11-25-feeds.ts";
import { importContents } from "./migrations/2026-11-25-import-contents.ts";
import { linePrices } from "./migrations/2026-11-25-line-prices.ts";
import { openingFigures } from "./migrations/2026-11-28-opening-figures.ts";
import { papers } from "./migrations/2026-11-25-papers.ts";
import { paymentsAndCurrencies } from "./migrations/2026-11-25-payments.ts";
import { relievingLines } from "./migrations/2026-11-28-relieving-lines.ts";
import { schemes } from "./migrations/2026-11-28-schemes.ts";
import { recurring } from "./migrations/2026-11-25-recurring.ts";
import { sourceKeys } from "./migrations/2026-11-25-source-keys.ts";
import { creditHolds } from "./migrations/2026-11-28-credit-holds.ts";
import { stockBook } from "./migrations/2026-11-28-stock-book.ts";
import { instalments } from "./migrations/2026-11-28-instalments.ts";
import { capitalItems } from "./migrations/2026-11-29-capital-items.ts";
import { registerSheets } from "./migrations/2026-11-29-register-sheets.ts";
import { authorityBalances } from "./migrations/2026-11-30-authority-balances.ts";
import { keptAgreements } from "./migrations/2026-11-30-kept-agreements.ts";
import { factUse } from "./migrations/2026-11-30-fact-use.ts";
import { decisionsOfParty } from "./migrations/2026-11-30-decisions-of-party.ts";
import { onceKeys } from "./migrations/2026-11-29-once-keys.ts";
import { statements } from "./migrations/2026-11-29-statements.ts";
import { agreements } from "./migrations/2026-11-29-agreements.ts";
import { lineUse } from "./migrations/2026-11-29-line-use.ts";
import { collectionOpenings } from "./migrations/2026-11-29-collection.ts";
import { lateFacts } from "./migrations/2026-11-28-late-facts.ts";
import { lateAnswers } from "./migrations/2026-11-28-late-answers.ts";
import { lawChanges } from "./migrations/2026-11-28-law-changes.ts";
import { registrationRegion } from "./migrations/2026-11-28-registration-region.ts";
import { lookups } from "./migrations/2026-11-28-lookups.ts";
import { wholeSetup } from "./migrations/2026-11-25-whole-setup.ts";

const MIGRATIONS = [
  firstTables,
  wholeSetup,
  auditChain,
  paymentsAndCurrencies,
  feeds,
  importContents,
  papers,
  linePrices,
  sourceKeys,
  recurring,
  documentTotals,
  lookups,
  lateAnswers,
  registrationRegion,
  creditHolds,
  lawChanges,
  accountRegion,
  amendments,
  openingFigures,
  dueDates,
  relievingLines,
  schemes,
  instalments,
  stockBook,
  lateFacts,
  collectionOpenings,
  capitalItems,
  lineUse,
  agreements,
  statements,
  registerSheets,
  onceKeys,
  decisionsOfParty,
  factUse,
  keptAgreements,
  authorityBalances,
];

/** Where the steps that were done are noted; data folders of every version have it under this name. */
const DONE = "sequelize_meta";

/**
 * Brings the database to the newest shape. Each step and the note of it are one transaction: killed at any moment, the
 * next start goes on where this one was. Before a database with anything in it is changed, a copy is put beside it.
 * @param folder where the copy goes
 */
export async function migrate(sequelize: Sequelize, person: string, folder: string): Promise<void> {
  await sequelize.query(
    `CREATE TABLE IF NOT EXISTS "${DONE}" (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)`,
  );
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, statements }) => ({
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
  if (pending.length > 0 && pending.length < MIGRATIONS.length) await copyBefore(sequelize, folder);
  await umzug.up();
  await sequelize.query(
    "INSERT INTO people (name, role, created_at) SELECT $1, 'preparer', $2 WHERE NOT EXISTS (SELECT 1 FROM people)",
    { bind: [person, new Date().toISOString()] },
  );
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
async function copyBefore(sequelize: Sequelize, folder: string): Promise<void> {
  const moment = new Date().toISOString().replace(/[:.]/g, "-");
  const unfinished = join(folder, "before-migration.unfinished.sqlite");
  rmSync(unfinished, { force: true });
  await sequelize.query("VACUUM INTO $1", { bind: [unfinished] });
  renameSync(unfinished, join(folder, `before-migration-${moment}.sqlite`));
}
