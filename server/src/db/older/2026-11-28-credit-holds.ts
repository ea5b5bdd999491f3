import type { Migration } from "../migration.ts";

/** Tax on purchases that is not deducted yet, and the day from which it is. */
export const creditHolds: Migration = {
  name: "2026-11-28-credit-holds",
  statements: [
    "ALTER TABLE documents ADD COLUMN credit_hold TEXT",
    "ALTER TABLE facts ADD COLUMN awaits TEXT",
    `CREATE TABLE credit_releases (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      document_id INTEGER NOT NULL UNIQUE REFERENCES documents, released_on TEXT NOT NULL, evidence TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people)`,
    "CREATE INDEX facts_awaiting ON facts (client_id) WHERE awaits IS NOT NULL AND live = 1",
  ],
};
