import type { Migration } from "../migration.ts";

const MADE = "created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people";

/** Bank accounts with their lines, card terminals with their transactions, and the world the simulators stand for. */
export const feeds: Migration = {
  name: "2026-11-25-feeds",
  statements: [
    `CREATE TABLE bank_accounts (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, account TEXT NOT NULL, number TEXT NOT NULL,
      consent TEXT, consent_until TEXT, fetched_to TEXT, ${MADE}, UNIQUE (client_id, account))`,
    `CREATE TABLE bank_lines (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, account TEXT NOT NULL, external_id TEXT NOT NULL,
      date TEXT NOT NULL, amount INTEGER NOT NULL, party TEXT NOT NULL, text TEXT NOT NULL, reference TEXT NOT NULL,
      source TEXT NOT NULL, state TEXT NOT NULL, entry_id INTEGER REFERENCES entries, reason TEXT, ${MADE},
      UNIQUE (client_id, account, external_id))`,
    `CREATE INDEX bank_lines_by_state ON bank_lines (client_id, state, date, id)`,
    `CREATE INDEX bank_lines_of_entry ON bank_lines (entry_id) WHERE entry_id IS NOT NULL`,
    `CREATE TABLE terminals (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, merchant TEXT NOT NULL, name TEXT NOT NULL,
      token TEXT NOT NULL, zone TEXT NOT NULL, cut_off TEXT NOT NULL, start TEXT NOT NULL, mapping JSON NOT NULL,
      cursor TEXT NOT NULL DEFAULT '', payout_cursor TEXT NOT NULL DEFAULT '', ${MADE}, UNIQUE (client_id, merchant))`,
    `CREATE TABLE terminal_transactions (
      id INTEGER PRIMARY KEY, terminal_id INTEGER NOT NULL REFERENCES terminals, external_id TEXT NOT NULL, at TEXT NOT NULL,
      day TEXT NOT NULL, payload JSON NOT NULL, document_id INTEGER REFERENCES documents, created_at TEXT NOT NULL,
      UNIQUE (terminal_id, external_id))`,
    `CREATE INDEX terminal_transactions_by_day ON terminal_transactions (terminal_id, day)`,
    `CREATE TABLE simulated_bank_lines (
      account TEXT NOT NULL, id TEXT NOT NULL, date TEXT NOT NULL, amount INTEGER NOT NULL, currency TEXT NOT NULL,
      party TEXT NOT NULL, text TEXT NOT NULL, reference TEXT NOT NULL, PRIMARY KEY (account, id))`,
    `CREATE TABLE simulated_merchants (
      merchant TEXT PRIMARY KEY, settings JSON NOT NULL)`,
  ],
};
