import type { Migration } from "../migration.ts";

/**
 * What was decided of a list of one party says nothing of the lists of others; a row can stand in the place of an earlier
 * one; a client's changes are found by their last.
 */
export const decisionsOfParty: Migration = {
  name: "2026-11-30-decisions-of-party",
  statements: [
    "ALTER TABLE match_decisions ADD COLUMN contact_id INTEGER REFERENCES contacts(id)",
    "ALTER TABLE statement_rows ADD COLUMN original TEXT NOT NULL DEFAULT ''",
    "CREATE INDEX changes_of_client ON changes (client_id, id)",
  ],
};
