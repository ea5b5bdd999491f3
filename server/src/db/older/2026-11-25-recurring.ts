import type { Migration } from "../migration.ts";

/** Kept documents that are posted by themselves on their day, counted from the first one. */
export const recurring: Migration = {
  name: "2026-11-25-recurring",
  statements: [
    "ALTER TABLE templates ADD COLUMN begins TEXT",
    "ALTER TABLE templates ADD COLUMN by_itself INTEGER NOT NULL DEFAULT 0",
    "ALTER TABLE templates ADD COLUMN problem TEXT",
    "UPDATE templates SET begins = next_on",
  ],
};
