import type { Migration } from "../migration.ts";

/** What the practice found out about the law: confirmed figures, corrected rates, days and titles. */
export const lawChanges: Migration = {
  name: "2026-11-28-law-changes",
  statements: [
    `CREATE TABLE law_changes (
      id INTEGER PRIMARY KEY, pack TEXT NOT NULL, change JSON NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id))`,
  ],
};
