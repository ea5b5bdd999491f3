import type { Migration } from "../migration.ts";

/**
 * Late documents that change what an earlier return already held, and where their facts would stand if they did not.
 */
export const amendments: Migration = {
  name: "2026-11-28-amendments",
  statements: [
    "ALTER TABLE late_answers ADD COLUMN amends INTEGER NOT NULL DEFAULT 0",
    "ALTER TABLE facts ADD COLUMN plain_tags TEXT",
  ],
};
