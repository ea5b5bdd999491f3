import type { Migration } from "../migration.ts";

const MADE = "created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people";

/** What every levy, code, place and jurisdiction needs beside the first tables. */
export const wholeSetup: Migration = {
  name: "2026-11-25-whole-setup",
  statements: [
    `ALTER TABLE registrations ADD COLUMN changes JSON NOT NULL DEFAULT '[]'`,
    `ALTER TABLE registrations ADD COLUMN options JSON NOT NULL DEFAULT '{}'`,
    `ALTER TABLE places ADD COLUMN closed_on TEXT`,
    `ALTER TABLE places ADD COLUMN sale_code TEXT`,
    `ALTER TABLE places ADD COLUMN purchase_code TEXT`,
    `ALTER TABLE items ADD COLUMN statistical_code TEXT`,
    `ALTER TABLE documents ADD COLUMN original_date TEXT`,
    `ALTER TABLE lines ADD COLUMN tax_class TEXT`,
    `ALTER TABLE facts ADD COLUMN base INTEGER NOT NULL DEFAULT 0`,
    `DROP INDEX facts_by_period`,
    `CREATE INDEX facts_by_period ON facts (registration_id, period_end, live, bucket, net, tax, recoverable, base)`,
    `CREATE TABLE rules (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, position INTEGER NOT NULL,
      definition JSON NOT NULL, ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE TABLE schedules (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, rows JSON NOT NULL,
      ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE TABLE jurisdictions (
      id INTEGER PRIMARY KEY, ref TEXT NOT NULL UNIQUE, definition JSON NOT NULL, ${MADE})`,
  ],
};
