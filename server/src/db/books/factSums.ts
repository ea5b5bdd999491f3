import type { Migration } from "../migration.ts";
import { keptBy } from "./keptBy.ts";

type Row = "new" | "old";

const counted = (row: Row) =>
  `${row}.live = 1 AND ${row}.registration_id IS NOT NULL AND ${row}.period_end IS NOT NULL`;

const sumUp = (row: Row, sign: "+" | "-") => `INSERT INTO fact_sums
      (registration_id, period_end, bucket, net, tax, recoverable, base, count)
    SELECT ${row}.registration_id, ${row}.period_end, ${row}.bucket, ${sign}${row}.net, ${sign}${row}.tax,
      ${sign}${row}.recoverable, ${sign}${row}.base, ${sign} 1 WHERE ${counted(row)}
    ON CONFLICT (registration_id, period_end, bucket) DO UPDATE SET net = net + excluded.net, tax = tax + excluded.tax,
      recoverable = recoverable + excluded.recoverable, base = base + excluded.base, count = count + excluded.count;`;

/** What a fact is summed by, and what of it is summed; its bucket is made of the others. */
const SUMMED = `registration_id, period_end, live, net, tax, recoverable, base, code, direction, rate, tags, credit, late`;

/**
 * The facts of a period summed by everything that decides where they land, kept by triggers in the transaction of what
 * they sum: the boxes of a period cost its few dozen buckets, however many facts it has.
 */
export const factSums: Migration = {
  name: "2026-11-30-fact-sums",
  statements: [
    `CREATE TABLE fact_sums (
    registration_id INTEGER NOT NULL REFERENCES registrations,
    period_end TEXT NOT NULL,
    bucket TEXT NOT NULL,
    net INTEGER NOT NULL,
    tax INTEGER NOT NULL,
    recoverable INTEGER NOT NULL,
    base INTEGER NOT NULL,
    count INTEGER NOT NULL,
    PRIMARY KEY (registration_id, period_end, bucket)
  ) WITHOUT ROWID`,
    `INSERT INTO fact_sums (registration_id, period_end, bucket, net, tax, recoverable, base, count)
    SELECT registration_id, period_end, bucket, sum(net), sum(tax), sum(recoverable), sum(base), count(*) FROM facts
    WHERE live = 1 AND registration_id IS NOT NULL AND period_end IS NOT NULL GROUP BY 1, 2, 3`,
    ...keptBy({ table: "facts", name: "facts_summed", columns: SUMMED }, sumUp),
  ],
};
