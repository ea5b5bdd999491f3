import type { Migration } from "../migration.ts";

const MADE = "created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people";

/** Papers beside documents, series of numbers, and documents kept to be used again. */
export const papers: Migration = {
  name: "2026-11-25-papers",
  statements: [
    `CREATE INDEX documents_by_ledger ON documents (client_id, state, ledger_date)`,
    `CREATE TABLE attachments (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, document_id INTEGER NOT NULL REFERENCES documents,
      file_hash TEXT NOT NULL, name TEXT NOT NULL, type TEXT NOT NULL, bytes INTEGER NOT NULL,
      removed_at TEXT, ${MADE})`,
    `CREATE INDEX attachments_of ON attachments (document_id)`,
    `CREATE TABLE series (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, kind TEXT NOT NULL, prefix TEXT NOT NULL,
      digits INTEGER NOT NULL, ${MADE}, UNIQUE (client_id, kind))`,
    `CREATE TABLE templates (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, name TEXT NOT NULL, kind TEXT NOT NULL,
      body JSON NOT NULL, every TEXT, next_on TEXT, until TEXT, ${MADE}, UNIQUE (client_id, name))`,
  ],
};
