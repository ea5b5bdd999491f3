import type { Migration } from "../migration.ts";

/** The day on which the payment of a document was agreed. */
export const dueDates: Migration = {
  name: "2026-11-28-due-dates",
  statements: ["ALTER TABLE documents ADD COLUMN due_date TEXT"],
};
