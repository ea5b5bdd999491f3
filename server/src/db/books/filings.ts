import type { Migration } from "../migration.ts";

/** What was sent to an authority, kept before it is sent, with what came of it. */
export const filings: Migration = {
  name: "2026-11-30-filings",
  statements: [
    `CREATE TABLE filings (
    id INTEGER PRIMARY KEY,
    client_id INTEGER NOT NULL REFERENCES clients,
    registration_id INTEGER NOT NULL REFERENCES registrations,
    period_end TEXT NOT NULL,
    number TEXT NOT NULL,
    period_key TEXT NOT NULL,
    body JSON NOT NULL,
    state TEXT NOT NULL,
    answer JSON,
    sent_at TEXT NOT NULL,
    sent_by INTEGER NOT NULL REFERENCES people,
    ended_at TEXT
  )`,
    `CREATE UNIQUE INDEX filings_without_answer ON filings (registration_id, period_end) WHERE state = 'sent'`,
  ],
};
