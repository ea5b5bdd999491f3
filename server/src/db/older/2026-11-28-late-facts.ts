import type { Migration } from "../migration.ts";

/** Late facts by their own period: the tests of a scheme look at all of it, on whatever return it is. */
export const lateFacts: Migration = {
  name: "2026-11-28-late-facts",
  statements: ["CREATE INDEX facts_late ON facts (registration_id, own_end) WHERE late = 1 AND live = 1"],
};
