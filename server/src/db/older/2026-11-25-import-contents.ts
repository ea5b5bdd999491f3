import type { Migration } from "../migration.ts";

/** Imports hold more than registers. */
export const importContents: Migration = {
  name: "2026-11-25-import-contents",
  statements: [
    `ALTER TABLE imports ADD COLUMN content TEXT NOT NULL DEFAULT 'register'`,
    `ALTER TABLE imports ADD COLUMN rejected_hash TEXT`,
    `CREATE INDEX imports_of_client ON imports (client_id, content, direction, id)`,
  ],
};
