import type { Migration } from "../migration.ts";

/** What a registration brings into its first return here, by box: credit carried forward elsewhere. */
export const openingFigures: Migration = {
  name: "2026-11-28-opening-figures",
  statements: ["ALTER TABLE registrations ADD COLUMN opening JSON NOT NULL DEFAULT '{}'"],
};
