import type { Migration } from "../migration.ts";

/** What people say of agreements: the cause of a row, and that a span is agreed as it stands. */
export const agreements: Migration = {
  name: "2026-11-29-agreements",
  statements: [
    `CREATE TABLE named_causes (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), kind TEXT NOT NULL, key TEXT NOT NULL,
      cause TEXT NOT NULL, reason TEXT NOT NULL, account TEXT NOT NULL, text TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id), UNIQUE (registration_id, kind, key))`,
    `CREATE TABLE agreements (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), kind TEXT NOT NULL, span_from TEXT NOT NULL,
      span_to TEXT NOT NULL, figures JSON NOT NULL, "open" INTEGER NOT NULL, rest INTEGER NOT NULL, note TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id),
      UNIQUE (registration_id, kind, span_from, span_to))`,
  ],
};
