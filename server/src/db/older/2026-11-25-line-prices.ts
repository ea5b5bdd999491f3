import type { Migration } from "../migration.ts";

/** A line may have its own mode of prices; empty where it is that of its document. */
export const linePrices: Migration = {
  name: "2026-11-25-line-prices",
  statements: ["ALTER TABLE lines ADD COLUMN prices TEXT"],
};
