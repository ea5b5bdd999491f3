import type { Migration } from "../migration.ts";

const MADE = "created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people";

/** Payments with what they settle, facts that wait for them, and documents in other currencies. */
export const paymentsAndCurrencies: Migration = {
  name: "2026-11-25-payments",
  statements: [
    `ALTER TABLE documents ADD COLUMN rate TEXT`,
    `ALTER TABLE documents ADD COLUMN rate_source TEXT`,
    `ALTER TABLE documents ADD COLUMN rate_date TEXT`,
    `ALTER TABLE documents ADD COLUMN foreign_gross INTEGER`,
    `ALTER TABLE documents ADD COLUMN paid_from TEXT`,
    `ALTER TABLE documents ADD COLUMN opening INTEGER NOT NULL DEFAULT 0`,
    `CREATE TABLE payments (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, kind TEXT NOT NULL, number TEXT NOT NULL,
      date TEXT NOT NULL, contact_id INTEGER REFERENCES contacts, account TEXT, currency TEXT NOT NULL, rate TEXT,
      amount INTEGER NOT NULL, base INTEGER NOT NULL, on_account INTEGER NOT NULL, reference TEXT NOT NULL DEFAULT '',
      note TEXT NOT NULL DEFAULT '', state TEXT NOT NULL, supersedes INTEGER REFERENCES payments, source_key TEXT,
      ended_at TEXT, ended_by INTEGER REFERENCES people, end_reason TEXT, ${MADE})`,
    `CREATE INDEX payments_by_date ON payments (client_id, state, date, id)`,
    `CREATE UNIQUE INDEX payments_by_source ON payments (client_id, source_key)
      WHERE source_key IS NOT NULL AND state = 'posted'`,
    `CREATE TABLE allocations (
      id INTEGER PRIMARY KEY, payment_id INTEGER NOT NULL REFERENCES payments, document_id INTEGER NOT NULL REFERENCES documents,
      amount INTEGER NOT NULL, difference INTEGER NOT NULL DEFAULT 0, difference_account TEXT, base INTEGER NOT NULL,
      live INTEGER NOT NULL DEFAULT 1)`,
    `CREATE INDEX allocations_of_document ON allocations (document_id, live)`,
    `CREATE INDEX allocations_of_payment ON allocations (payment_id)`,
    `ALTER TABLE entries ADD COLUMN payment_id INTEGER REFERENCES payments`,
    `CREATE INDEX entries_of_payment ON entries (payment_id) WHERE payment_id IS NOT NULL`,
    `ALTER TABLE facts ADD COLUMN held INTEGER NOT NULL DEFAULT 0`,
    `ALTER TABLE facts ADD COLUMN release_of INTEGER REFERENCES facts`,
    `ALTER TABLE facts ADD COLUMN payment_id INTEGER REFERENCES payments`,
    `CREATE INDEX facts_held ON facts (registration_id) WHERE held = 1 AND live = 1`,
    `CREATE INDEX facts_of_payment ON facts (payment_id) WHERE payment_id IS NOT NULL`,
  ],
};
