import type { Migration } from "../migration.ts";

/** What customers paid in a fiscal year before the books begin, for tax collected from them above a yearly sum. */
export const collectionOpenings: Migration = {
  name: "2026-11-29-collection",
  statements: [
    `CREATE TABLE collection_openings (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      contact_id INTEGER NOT NULL REFERENCES contacts(id), year TEXT NOT NULL, amount INTEGER NOT NULL,
      evidence TEXT NOT NULL, created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id),
      UNIQUE (client_id, contact_id, year))`,
  ],
};
