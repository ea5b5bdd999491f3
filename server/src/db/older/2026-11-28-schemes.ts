import type { Migration } from "../migration.ts";

/** The special schemes a registration is on, by date. */
export const schemes: Migration = {
  name: "2026-11-28-schemes",
  statements: ["ALTER TABLE registrations ADD COLUMN schemes JSON NOT NULL DEFAULT '[]'"],
};
