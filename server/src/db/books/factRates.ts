import type { Migration } from "../migration.ts";

/**
 * What the tax of a fact was worked out with beside its percentage, by schedule: amounts by unit or document, rates in a
 * formula, limits of what is deducted. Facts from before do not tell.
 */
export const factRates: Migration = {
  name: "2026-12-01-fact-rates",
  statements: ["ALTER TABLE facts ADD COLUMN rates TEXT"],
};
