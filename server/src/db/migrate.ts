import type { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
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

/** Brings the database to the newest shape. Each migration runs once, in one transaction. */
export async function migrate(sequelize: Sequelize, person: string): Promise<void> {
  const umzug = new Umzug({
    migrations: [
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
    ].map(({ name, statements }) => ({
      name,
      up: () =>
        sequelize.transaction(async (transaction) => {
          for (const sql of statements) await sequelize.query(sql, { transaction });
        }),
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
  await sequelize.query(
    "INSERT INTO people (name, role, created_at) SELECT $1, 'preparer', $2 WHERE NOT EXISTS (SELECT 1 FROM people)",
    { bind: [person, new Date().toISOString()] },
  );
}
