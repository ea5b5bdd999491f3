import type { Migration } from "../migration.ts";

/** Capital items whose tax follows their use over years. */
export const capitalItems: Migration = {
  name: "2026-11-29-capital-items",
  statements: [
    `CREATE TABLE capital_items (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id), no INTEGER NOT NULL, name TEXT NOT NULL,
      kind TEXT NOT NULL, first_use TEXT NOT NULL, net INTEGER NOT NULL, taxes JSON NOT NULL, share TEXT NOT NULL,
      year_ends INTEGER NOT NULL, uses JSON NOT NULL, ended JSON, evidence TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id), UNIQUE (registration_id, no))`,
  ],
};
