import type { Migration } from "../migration.ts";

/** The region whose registration an account is for, where another region has accounts of its own. */
export const accountRegion: Migration = {
  name: "2026-11-28-account-region",
  statements: ["ALTER TABLE accounts ADD COLUMN region TEXT"],
};
