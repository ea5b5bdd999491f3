import type { Migration } from "../migration.ts";

/** Exported registers that are compared without being posted. */
export const registerSheets: Migration = {
  name: "2026-11-29-register-sheets",
  statements: [
    `CREATE TABLE register_sheets (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id), name TEXT NOT NULL, columns JSON NOT NULL,
      mapping JSON NOT NULL, created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id))`,
    "CREATE INDEX register_sheets_of_client ON register_sheets (client_id)",
    `CREATE TABLE register_rows (
      sheet_id INTEGER NOT NULL REFERENCES register_sheets(id) ON DELETE CASCADE, no INTEGER NOT NULL, cells JSON NOT NULL,
      PRIMARY KEY (sheet_id, no)) WITHOUT ROWID`,
  ],
};
