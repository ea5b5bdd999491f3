import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import { inKinds } from "../kindSql.ts";
import type { Migration } from "../migration.ts";
import { keptBy } from "./keptBy.ts";

/** Kinds that leave something open until it is paid. */
const ON_CREDIT = inKinds("kind", (_, kind) => isOpenItem(kind));

const addTo = (row: "new" | "old", sign: "+" | "-") => `UPDATE documents SET
      settled = settled ${sign} ${row}.amount ${sign} ${row}.difference, settled_base = settled_base ${sign} ${row}.base
    WHERE id = ${row}.document_id AND ${row}.live = 1;`;

const sumUp = (row: "new" | "old", sign: "+" | "-") => `INSERT INTO month_sums (account_id, month, amount)
    SELECT ${row}.account_id, substr(${row}.date, 1, 7), ${sign}${row}.amount WHERE ${row}.live = 1
    ON CONFLICT (account_id, month) DO UPDATE SET amount = amount + excluded.amount;`;

/**
 * What grows with the age of the books is kept as a sum, by triggers, in the transaction of what it sums: balances by
 * account and month, and what is settled of a document. So a balance costs the months and the days of one month, and
 * what is open costs what is open.
 */
export const keptSums: Migration = {
  name: "2026-11-30-kept-sums",
  statements: [
    `CREATE TABLE month_sums (
    account_id INTEGER NOT NULL REFERENCES accounts,
    month TEXT NOT NULL,
    amount INTEGER NOT NULL,
    PRIMARY KEY (account_id, month)
  ) WITHOUT ROWID`,
    `INSERT INTO month_sums (account_id, month, amount)
    SELECT account_id, substr(date, 1, 7), sum(amount) FROM postings WHERE live = 1 GROUP BY 1, 2`,
    ...keptBy(
      { table: "postings", name: "postings_summed", columns: "account_id, date, amount, live" },
      sumUp,
    ),
    `ALTER TABLE documents ADD COLUMN settled INTEGER NOT NULL DEFAULT 0`,
    `ALTER TABLE documents ADD COLUMN settled_base INTEGER NOT NULL DEFAULT 0`,
    `UPDATE documents SET
      settled = (SELECT coalesce(sum(amount + difference), 0) FROM allocations WHERE document_id = documents.id AND live = 1),
      settled_base = (SELECT coalesce(sum(base), 0) FROM allocations WHERE document_id = documents.id AND live = 1)
    WHERE id IN (SELECT document_id FROM allocations WHERE live = 1)`,
    `ALTER TABLE documents ADD COLUMN open_amount INTEGER AS
    (CASE WHEN state = 'posted' AND ${ON_CREDIT} THEN coalesce(foreign_gross, gross) - settled ELSE 0 END) VIRTUAL`,
    `ALTER TABLE documents ADD COLUMN open_base INTEGER AS
    (CASE WHEN state = 'posted' AND ${ON_CREDIT} THEN gross - settled_base ELSE 0 END) VIRTUAL`,
    `CREATE INDEX documents_open ON documents (client_id, date) WHERE open_amount <> 0 OR open_base <> 0`,
    ...keptBy(
      {
        table: "allocations",
        name: "allocations_settle",
        columns: "document_id, amount, difference, base, live",
      },
      addTo,
    ),
    `CREATE INDEX documents_noted ON documents (client_id, note) WHERE note <> ''`,
    `CREATE INDEX lines_uncoded ON lines (document_id) WHERE code IS NULL`,
    `CREATE INDEX payments_with_rest ON payments (client_id, date) WHERE on_account <> 0 AND state = 'posted'`,
  ],
};
