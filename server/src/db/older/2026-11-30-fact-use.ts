import type { Migration } from "../migration.ts";

/** What a purchase is for stands on its facts, and in their index: sums by it need no look at a line. */
export const factUse: Migration = {
  name: "2026-11-30-fact-use",
  statements: [
    "ALTER TABLE facts ADD COLUMN use TEXT NOT NULL DEFAULT ''",
    `UPDATE facts SET use = coalesce((SELECT coalesce(l.supply, '') || ' ' || coalesce(l.account, '') FROM lines l
       WHERE l.document_id = facts.document_id AND l.no = facts.line), '') WHERE direction = 'purchase'`,
    "DROP INDEX facts_by_period",
    `CREATE INDEX facts_by_period ON facts (registration_id, period_end, live, bucket, use, tax_point, own_end,
       net, tax, recoverable, base)`,
  ],
};
