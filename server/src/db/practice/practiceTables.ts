/** The practice: what is not of one client. */
export const PRACTICE_TABLES: readonly string[] = [
  `CREATE TABLE people (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    role TEXT NOT NULL,
    created_at TEXT NOT NULL
  )`,
  `CREATE TABLE changes (
    id INTEGER PRIMARY KEY,
    at TEXT NOT NULL,
    person_id INTEGER NOT NULL REFERENCES people,
    action TEXT NOT NULL,
    entity TEXT NOT NULL,
    entity_id INTEGER,
    before JSON,
    after JSON,
    hash TEXT NOT NULL
  )`,
  `CREATE INDEX changes_of ON changes (entity, entity_id)`,
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
  `CREATE TRIGGER changes_stay BEFORE UPDATE ON changes BEGIN
    SELECT RAISE(ABORT, 'the audit trail is append-only');
  END`,
  `CREATE TRIGGER changes_are_kept BEFORE DELETE ON changes BEGIN
    SELECT RAISE(ABORT, 'the audit trail is append-only');
  END`,
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
  `CREATE TABLE once_keys (
    key TEXT PRIMARY KEY,
    request TEXT NOT NULL,
    status INTEGER,
    answer TEXT,
    created_at TEXT NOT NULL
  ) WITHOUT ROWID`,
  `CREATE INDEX once_keys_by_age ON once_keys (created_at)`,
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
