import type { Migration } from "../migration.ts";
import { keptBy } from "./keptBy.ts";

type Row = "new" | "old";

const of = (row: string, field: string) => `coalesce(${row}.payload ->> '${field}', 0)`;

/** What of a transaction is summed, in the order of the columns. */
const summed = (row: string) => [
  of(row, "gross"),
  of(row, "fee"),
  of(row, "surcharge"),
  of(row, "tip"),
  `CASE WHEN ${row}.payload ->> 'kind' = 'refund' THEN ${of(row, "gross")} ELSE 0 END`,
];

const sumUp = (row: Row, sign: "+" | "-") => `INSERT INTO terminal_sums
      (terminal_id, day, document_id, count, gross, fees, surcharge, tips, refunds)
    VALUES (${row}.terminal_id, ${row}.day, coalesce(${row}.document_id, 0), ${sign}1,
      ${summed(row)
        .map((one) => `${sign} (${one})`)
        .join(", ")})
    ON CONFLICT (terminal_id, day, document_id) DO UPDATE SET count = count + excluded.count,
      gross = gross + excluded.gross, fees = fees + excluded.fees, surcharge = surcharge + excluded.surcharge,
      tips = tips + excluded.tips, refunds = refunds + excluded.refunds;
    DELETE FROM terminal_sums WHERE terminal_id = ${row}.terminal_id AND day = ${row}.day
      AND document_id = coalesce(${row}.document_id, 0) AND count = 0;`;

/**
 * The transactions of a terminal summed by trading day and by the document they were posted with (0 where they were not
 * yet), kept by triggers in the transaction of what they sum: terminals and their clearing account cost the days.
 */
export const terminalSums: Migration = {
  name: "2026-11-30-terminal-sums",
  statements: [
    `CREATE TABLE terminal_sums (
    terminal_id INTEGER NOT NULL REFERENCES terminals,
    day TEXT NOT NULL,
    document_id INTEGER NOT NULL,
    count INTEGER NOT NULL,
    gross INTEGER NOT NULL,
    fees INTEGER NOT NULL,
    surcharge INTEGER NOT NULL,
    tips INTEGER NOT NULL,
    refunds INTEGER NOT NULL,
    PRIMARY KEY (terminal_id, day, document_id)
  ) WITHOUT ROWID`,
    `INSERT INTO terminal_sums SELECT x.terminal_id, x.day, coalesce(x.document_id, 0), count(*),
      ${summed("x")
        .map((one) => `sum(${one})`)
        .join(", ")}
    FROM terminal_transactions x GROUP BY 1, 2, 3`,
    ...keptBy(
      {
        table: "terminal_transactions",
        name: "terminal_transactions_summed",
        columns: "terminal_id, day, document_id, payload",
      },
      sumUp,
    ),
    `CREATE INDEX terminal_transactions_waiting ON terminal_transactions (terminal_id, day) WHERE document_id IS NULL`,
  ],
};
