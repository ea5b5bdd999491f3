import type { Migration } from "../migration.ts";
import { PRACTICE_TABLES } from "./practiceTables.ts";

/** What is of the practice and of no client alone. */
const firstPractice: Migration = { name: "2026-11-30-practice", statements: PRACTICE_TABLES };

/** What of all clients is still to be filed or paid, without opening their books. */
const periodSummaries: Migration = {
  name: "2026-11-30-period-summaries",
  statements: [
    `CREATE TABLE period_summaries (
    client_id INTEGER NOT NULL REFERENCES clients ON DELETE CASCADE,
    registration_id INTEGER NOT NULL,
    period_from TEXT NOT NULL,
    period_end TEXT NOT NULL,
    due TEXT NOT NULL,
    state TEXT NOT NULL,
    net INTEGER NOT NULL,
    PRIMARY KEY (client_id, registration_id, period_end)
  ) WITHOUT ROWID`,
  ],
};

/**
 * How many findings wait in the return a client has to file next, as they were counted at an entry of its audit trail;
 * null where they could not be.
 */
const findingCounts: Migration = {
  name: "2026-11-30-finding-counts",
  statements: [
    `CREATE TABLE finding_counts (
    client_id INTEGER NOT NULL REFERENCES clients ON DELETE CASCADE,
    registration_id INTEGER NOT NULL,
    period_end TEXT NOT NULL,
    stamp INTEGER NOT NULL,
    open INTEGER,
    stops INTEGER,
    PRIMARY KEY (client_id, registration_id)
  ) WITHOUT ROWID`,
  ],
};

/** Every shape the file of the practice had, in order. */
export const PRACTICE_MIGRATIONS: readonly Migration[] = [firstPractice, periodSummaries, findingCounts];
