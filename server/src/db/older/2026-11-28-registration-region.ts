import type { Migration } from "../migration.ts";

/** The region a registration is for, where a levy is registered region by region. */
export const registrationRegion: Migration = {
  name: "2026-11-28-registration-region",
  statements: ["ALTER TABLE registrations ADD COLUMN region TEXT"],
};
