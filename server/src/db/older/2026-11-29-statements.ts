import type { Migration } from "../migration.ts";

/** Lists of others, how they stand against our documents, and what people decided of it. */
export const statements: Migration = {
  name: "2026-11-29-statements",
  statements: [
    `CREATE TABLE statements (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), kind TEXT NOT NULL,
      contact_id INTEGER REFERENCES contacts(id), period_from TEXT NOT NULL, period_end TEXT NOT NULL, name TEXT NOT NULL, drawn_on TEXT,
      basis TEXT NOT NULL, settings JSON NOT NULL, problems JSON NOT NULL, stamp TEXT, broken_off INTEGER NOT NULL DEFAULT 0,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id))`,
    "CREATE INDEX statements_of_registration ON statements (registration_id, kind, period_end)",
    `CREATE TABLE statement_rows (
      id INTEGER PRIMARY KEY, statement_id INTEGER NOT NULL REFERENCES statements(id) ON DELETE CASCADE,
      key TEXT NOT NULL, party_number TEXT NOT NULL, party_name TEXT NOT NULL, number TEXT NOT NULL, date TEXT NOT NULL,
      value INTEGER NOT NULL, tax INTEGER NOT NULL, taxes JSON NOT NULL, rate TEXT NOT NULL, place TEXT NOT NULL,
      ineligible TEXT NOT NULL, note TEXT NOT NULL, UNIQUE (statement_id, key))`,
    `CREATE TABLE match_decisions (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), kind TEXT NOT NULL,
      period_end TEXT NOT NULL, decision TEXT NOT NULL, ours JSON NOT NULL, theirs JSON NOT NULL, reason TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id))`,
    "CREATE INDEX match_decisions_of_registration ON match_decisions (registration_id, kind)",
    `CREATE TABLE match_lines (
      id INTEGER PRIMARY KEY, statement_id INTEGER NOT NULL REFERENCES statements(id) ON DELETE CASCADE,
      outcome TEXT NOT NULL, decision_id INTEGER REFERENCES match_decisions(id), party TEXT NOT NULL, number TEXT NOT NULL,
      date TEXT NOT NULL, ours JSON NOT NULL, theirs JSON NOT NULL, score INTEGER, reasons JSON NOT NULL,
      differs JSON NOT NULL, sure INTEGER NOT NULL, repeats TEXT NOT NULL, ours_rows INTEGER NOT NULL,
      theirs_rows INTEGER NOT NULL, ours_value INTEGER NOT NULL, theirs_value INTEGER NOT NULL,
      ours_tax INTEGER NOT NULL, theirs_tax INTEGER NOT NULL, held INTEGER NOT NULL)`,
    "CREATE INDEX match_lines_of_statement ON match_lines (statement_id, outcome, party, number)",
  ],
};
