import type { Migration } from "../migration.ts";

/** What the authority says is owed to it on a day, typed from its account. */
export const authorityBalances: Migration = {
  name: "2026-11-30-authority-balances",
  statements: [
    `CREATE TABLE authority_balances (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), day TEXT NOT NULL, amount INTEGER NOT NULL,
      note TEXT NOT NULL, created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id),
      UNIQUE (registration_id, day))`,
  ],
};
