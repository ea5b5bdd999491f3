import type { Migration } from "../migration.ts";

/** Requests that were done, by the key their sender gave them, so that none is done twice. */
export const onceKeys: Migration = {
  name: "2026-11-29-once-keys",
  statements: [
    `CREATE TABLE once_keys (
      key TEXT PRIMARY KEY, request TEXT NOT NULL, status INTEGER, answer TEXT, created_at TEXT NOT NULL) WITHOUT ROWID`,
    "CREATE INDEX once_keys_by_age ON once_keys (created_at)",
  ],
};
