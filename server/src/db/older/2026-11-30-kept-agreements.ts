import type { Migration } from "../migration.ts";

/** A sealed return keeps its agreements as they stood. */
export const keptAgreements: Migration = {
  name: "2026-11-30-kept-agreements",
  statements: ["ALTER TABLE returns ADD COLUMN agreements JSON"],
};
