import type { Migration } from "../migration.ts";

/** What lines are for is read from an index alone, where many are summed by it. */
export const lineUse: Migration = {
  name: "2026-11-29-line-use",
  statements: ["DROP INDEX lines_of", "CREATE INDEX lines_of ON lines (document_id, no, supply, account)"],
};
