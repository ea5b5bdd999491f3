import type { Migration } from "../migration.ts";

/** Lines that relieve or repay the tax of another document are found by what they name. */
export const relievingLines: Migration = {
  name: "2026-11-28-relieving-lines",
  statements: [
    `CREATE INDEX lines_relieving ON lines (attributes ->> '$.relieves') WHERE attributes ->> '$.relieves' IS NOT NULL`,
  ],
};
