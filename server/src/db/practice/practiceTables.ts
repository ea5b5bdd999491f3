import { AUDITED_TABLES } from "../auditedTables.ts";

/** The practice: what is not of one client. */
export const PRACTICE_TABLES: readonly string[] = [
  ...AUDITED_TABLES,
  `CREATE TABLE jobs (
    id INTEGER PRIMARY KEY,
    client_id INTEGER,
    kind TEXT NOT NULL,
    key TEXT NOT NULL UNIQUE,
    state TEXT NOT NULL,
    done INTEGER NOT NULL DEFAULT 0,
    total INTEGER NOT NULL DEFAULT 0,
    message TEXT NOT NULL DEFAULT '',
    result JSON,
    error JSON,
    created_at TEXT NOT NULL,
    created_by INTEGER NOT NULL REFERENCES people
  )`,
  `CREATE TABLE authority_submissions (
    id INTEGER PRIMARY KEY,
    vrn TEXT NOT NULL,
    period_key TEXT NOT NULL,
    body JSON NOT NULL,
    receipt JSON NOT NULL,
    received TEXT NOT NULL,
    UNIQUE (vrn, period_key)
  )`,
  `CREATE TABLE jurisdictions (
    id INTEGER PRIMARY KEY,
    ref TEXT NOT NULL UNIQUE,
    definition JSON NOT NULL,
    created_at TEXT NOT NULL,
    created_by INTEGER NOT NULL REFERENCES people
  )`,
  `CREATE TABLE simulated_bank_lines (
    account TEXT NOT NULL,
    id TEXT NOT NULL,
    date TEXT NOT NULL,
    amount INTEGER NOT NULL,
    currency TEXT NOT NULL,
    party TEXT NOT NULL,
    text TEXT NOT NULL,
    reference TEXT NOT NULL,
    PRIMARY KEY (account, id)
  )`,
  `CREATE TABLE simulated_merchants (
    merchant TEXT PRIMARY KEY,
    settings JSON NOT NULL
  )`,
  `CREATE TABLE law_changes (
    id INTEGER PRIMARY KEY,
    pack TEXT NOT NULL,
    change JSON NOT NULL,
    created_at TEXT NOT NULL,
    created_by INTEGER NOT NULL REFERENCES people
  )`,
  `CREATE TABLE clients (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    name TEXT NOT NULL,
    folder TEXT NOT NULL,
    state TEXT NOT NULL,
    maker TEXT,
    created_at TEXT NOT NULL,
    created_by INTEGER NOT NULL REFERENCES people
  )`,
  `CREATE TABLE client_summaries (
    client_id INTEGER PRIMARY KEY REFERENCES clients ON DELETE CASCADE,
    stamp INTEGER NOT NULL,
    name TEXT NOT NULL,
    country TEXT NOT NULL,
    currency TEXT NOT NULL,
    documents INTEGER NOT NULL,
    places JSON NOT NULL,
    recurs_on TEXT
  )`,
  `CREATE TABLE registration_summaries (
    client_id INTEGER NOT NULL REFERENCES clients ON DELETE CASCADE,
    registration_id INTEGER NOT NULL,
    pack TEXT NOT NULL,
    number TEXT,
    definition JSON NOT NULL,
    PRIMARY KEY (client_id, registration_id)
  ) WITHOUT ROWID`,
  `CREATE INDEX registrations_by_number ON registration_summaries (number)`,
  `CREATE TABLE law_pending (
    client_id INTEGER NOT NULL REFERENCES clients ON DELETE CASCADE,
    pack TEXT NOT NULL,
    schedule TEXT NOT NULL,
    was JSON NOT NULL,
    PRIMARY KEY (client_id, pack, schedule)
  ) WITHOUT ROWID`,
];
