/** What every file has: who works in it, what was changed by whom, and which requests were done. */
export const AUDITED_TABLES: readonly string[] = [
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
  `CREATE TRIGGER changes_stay BEFORE UPDATE ON changes BEGIN
    SELECT RAISE(ABORT, 'the audit trail is append-only');
  END`,
  `CREATE TRIGGER changes_are_kept BEFORE DELETE ON changes BEGIN
    SELECT RAISE(ABORT, 'the audit trail is append-only');
  END`,
  `CREATE TABLE once_keys (
    key TEXT PRIMARY KEY,
    request TEXT NOT NULL,
    status INTEGER,
    answer TEXT,
    created_at TEXT NOT NULL
  ) WITHOUT ROWID`,
  `CREATE INDEX once_keys_by_age ON once_keys (created_at)`,
];
