import type { Migration } from "../migration.ts";

const MADE = "created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people";

/** Money is whole minor units, dates are YYYY-MM-DD, times ISO 8601 in UTC, JSON columns end in nothing special. */
export const firstTables: Migration = {
  name: "2026-11-24-first-tables",
  statements: [
    `CREATE TABLE people (id INTEGER PRIMARY KEY, name TEXT NOT NULL, role TEXT NOT NULL, created_at TEXT NOT NULL)`,
    `CREATE TABLE changes (
      id INTEGER PRIMARY KEY, client_id INTEGER, at TEXT NOT NULL, person_id INTEGER NOT NULL REFERENCES people,
      action TEXT NOT NULL, entity TEXT NOT NULL, entity_id INTEGER, before JSON, after JSON)`,
    `CREATE INDEX changes_of ON changes (client_id, entity, entity_id)`,
    `CREATE TABLE clients (
      id INTEGER PRIMARY KEY, name TEXT NOT NULL, country TEXT NOT NULL, currency TEXT NOT NULL,
      sale_code TEXT, purchase_code TEXT, ${MADE})`,
    `CREATE TABLE places (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, name TEXT NOT NULL,
      country TEXT NOT NULL, region TEXT, ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE TABLE registrations (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, pack TEXT NOT NULL,
      levies JSON NOT NULL, number TEXT, valid_from TEXT NOT NULL, valid_to TEXT, frequency TEXT NOT NULL,
      anchor TEXT NOT NULL, basis TEXT NOT NULL, rounding JSON NOT NULL, ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE TABLE accounts (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, code TEXT NOT NULL, name TEXT NOT NULL,
      type TEXT NOT NULL, role TEXT, levy TEXT, topic TEXT, usual_code TEXT, ${MADE}, UNIQUE (client_id, code))`,
    `CREATE TABLE codes (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, code TEXT NOT NULL,
      definition JSON NOT NULL, active INTEGER NOT NULL DEFAULT 1, position INTEGER NOT NULL, ${MADE},
      UNIQUE (client_id, code))`,
    `CREATE TABLE contacts (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, name TEXT NOT NULL,
      country TEXT, region TEXT, tax_number TEXT, registered INTEGER, standing JSON, sale_code TEXT,
      purchase_code TEXT, ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE INDEX contacts_by_name ON contacts (client_id, name COLLATE NOCASE)`,
    `CREATE TABLE items (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, ref TEXT NOT NULL, name TEXT NOT NULL,
      unit_price TEXT, supply TEXT, tax_class TEXT, sale_code TEXT, purchase_code TEXT, sale_account TEXT,
      purchase_account TEXT, ${MADE}, UNIQUE (client_id, ref))`,
    `CREATE TABLE imports (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, direction TEXT NOT NULL,
      file_name TEXT NOT NULL, file_hash TEXT NOT NULL, bytes INTEGER NOT NULL, encoding TEXT NOT NULL,
      shape JSON NOT NULL, settings JSON NOT NULL, report JSON, state TEXT NOT NULL,
      documents INTEGER NOT NULL DEFAULT 0, ${MADE})`,
    `CREATE TABLE documents (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, kind TEXT NOT NULL, number TEXT NOT NULL,
      date TEXT NOT NULL, tax_point TEXT, contact_id INTEGER REFERENCES contacts, place_id INTEGER REFERENCES places,
      prices TEXT NOT NULL, currency TEXT NOT NULL, corrects TEXT, note TEXT NOT NULL DEFAULT '', discount JSON,
      typed_tax JSON, net INTEGER NOT NULL, tax INTEGER NOT NULL, gross INTEGER NOT NULL, ledger_date TEXT NOT NULL,
      state TEXT NOT NULL, supersedes INTEGER REFERENCES documents, import_id INTEGER REFERENCES imports,
      source_key TEXT, ended_at TEXT, ended_by INTEGER REFERENCES people, end_reason TEXT, ${MADE})`,
    `CREATE INDEX documents_by_date ON documents (client_id, state, date, id)`,
    `CREATE INDEX documents_by_number ON documents (client_id, number, kind)`,
    `CREATE INDEX documents_of_import ON documents (import_id) WHERE import_id IS NOT NULL`,
    `CREATE UNIQUE INDEX documents_by_source ON documents (client_id, source_key)
      WHERE source_key IS NOT NULL AND state = 'posted'`,
    `CREATE TABLE lines (
      id INTEGER PRIMARY KEY, document_id INTEGER NOT NULL REFERENCES documents, no INTEGER NOT NULL,
      text TEXT NOT NULL DEFAULT '', amount TEXT, quantity TEXT, unit_price TEXT, discount JSON, code TEXT,
      code_reason TEXT, account TEXT, item TEXT, supply TEXT, typed_tax JSON, typed_reason TEXT, attributes JSON,
      net INTEGER NOT NULL, gross INTEGER NOT NULL, source_row INTEGER)`,
    `CREATE INDEX lines_of ON lines (document_id, no)`,
    `CREATE TABLE entries (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, kind TEXT NOT NULL, date TEXT NOT NULL,
      document_id INTEGER REFERENCES documents, registration_id INTEGER REFERENCES registrations, period_end TEXT,
      text TEXT NOT NULL, live INTEGER NOT NULL DEFAULT 1, ${MADE})`,
    `CREATE INDEX entries_of_document ON entries (document_id)`,
    `CREATE INDEX entries_by_date ON entries (client_id, live, date)`,
    `CREATE TABLE postings (
      id INTEGER PRIMARY KEY, entry_id INTEGER NOT NULL REFERENCES entries, client_id INTEGER NOT NULL,
      account_id INTEGER NOT NULL REFERENCES accounts, date TEXT NOT NULL, amount INTEGER NOT NULL, line INTEGER,
      levy TEXT, text TEXT NOT NULL DEFAULT '', live INTEGER NOT NULL DEFAULT 1)`,
    `CREATE INDEX postings_by_account ON postings (client_id, live, account_id, date, amount)`,
    `CREATE INDEX postings_of ON postings (entry_id)`,
    `CREATE TABLE facts (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      registration_id INTEGER REFERENCES registrations, document_id INTEGER NOT NULL REFERENCES documents,
      line INTEGER NOT NULL, levy TEXT NOT NULL, code TEXT NOT NULL, treatment TEXT NOT NULL, rate TEXT,
      direction TEXT NOT NULL, charged TEXT NOT NULL, credit INTEGER NOT NULL, net INTEGER NOT NULL, tax INTEGER NOT NULL,
      calculated INTEGER NOT NULL, recoverable INTEGER NOT NULL, tax_point TEXT NOT NULL, own_end TEXT, period_end TEXT, late INTEGER NOT NULL,
      tags TEXT NOT NULL, live INTEGER NOT NULL DEFAULT 1, created_at TEXT NOT NULL,
      bucket TEXT GENERATED ALWAYS AS (json_array(code, direction, rate, tags, credit, late)) STORED)`,
    `CREATE INDEX facts_by_period ON facts (registration_id, period_end, live, bucket, net, tax, recoverable)`,
    `CREATE INDEX facts_of ON facts (document_id, line)`,
    `CREATE INDEX facts_unregistered ON facts (client_id, tax_point) WHERE registration_id IS NULL`,
    `CREATE TABLE returns (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      registration_id INTEGER NOT NULL REFERENCES registrations, period_from TEXT NOT NULL, period_end TEXT NOT NULL,
      state TEXT NOT NULL, boxes JSON, net INTEGER, facts INTEGER, hash TEXT,
      sealed_at TEXT, sealed_by INTEGER REFERENCES people, filed_at TEXT, filed_by INTEGER REFERENCES people,
      receipt JSON, settled_at TEXT, settled_by INTEGER REFERENCES people, settlement_entry INTEGER REFERENCES entries,
      ${MADE}, UNIQUE (registration_id, period_end))`,
    `CREATE TABLE adjustments (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      registration_id INTEGER NOT NULL REFERENCES registrations, period_end TEXT NOT NULL, box TEXT NOT NULL,
      amount INTEGER NOT NULL, reason TEXT NOT NULL, evidence TEXT NOT NULL DEFAULT '', ${MADE})`,
    `CREATE TABLE acceptances (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      registration_id INTEGER NOT NULL REFERENCES registrations, period_end TEXT NOT NULL, key TEXT NOT NULL,
      reason TEXT NOT NULL, ${MADE}, UNIQUE (registration_id, period_end, key))`,
    `CREATE TABLE explanations (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients, entry_id INTEGER NOT NULL UNIQUE REFERENCES entries,
      reason TEXT NOT NULL, ${MADE})`,
    `CREATE TABLE tax_payments (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients,
      registration_id INTEGER NOT NULL REFERENCES registrations, period_end TEXT NOT NULL, date TEXT NOT NULL,
      kind TEXT NOT NULL, amount INTEGER NOT NULL, reference TEXT NOT NULL DEFAULT '',
      entry_id INTEGER NOT NULL REFERENCES entries, ${MADE})`,
    `CREATE TABLE jobs (
      id INTEGER PRIMARY KEY, client_id INTEGER, kind TEXT NOT NULL, state TEXT NOT NULL, done INTEGER NOT NULL DEFAULT 0,
      total INTEGER NOT NULL DEFAULT 0, message TEXT NOT NULL DEFAULT '', result JSON, error JSON, ${MADE})`,
    `CREATE TABLE authority_submissions (
      id INTEGER PRIMARY KEY, vrn TEXT NOT NULL, period_key TEXT NOT NULL, body JSON NOT NULL, receipt JSON NOT NULL,
      received TEXT NOT NULL, UNIQUE (vrn, period_key))`,
  ],
};
