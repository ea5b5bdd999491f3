import type { Migration } from "../migration.ts";
import { keptBy, trigger } from "./keptBy.ts";

/** The day from which an entry and its lines of the bank agree, where they never do. */
const NEVER = `'9999-12-31'`;

/** Accounts and entries of which postings `p` and lines of the bank `b` may differ on some day. */
const gapsOf = (postings: string, lines: string) => `INSERT INTO bank_gaps
      (account_id, entry_id, from_day, until_day, lines, amount)
    SELECT account, entry, min(day), CASE WHEN sum(posted) <> sum(taken) THEN ${NEVER} ELSE max(day) END,
      sum(line), sum(posted) FROM (
        SELECT p.account_id AS account, p.entry_id AS entry, p.date AS day, p.amount AS posted, 0 AS taken, 0 AS line
        FROM postings p WHERE p.live = 1 AND ${postings}
        UNION ALL
        SELECT a.id, b.entry_id, b.date, 0, b.amount, 1
        FROM bank_lines b CROSS JOIN accounts a ON a.client_id = b.client_id AND a.code = b.account
        WHERE b.entry_id IS NOT NULL AND ${lines})
    GROUP BY account, entry HAVING sum(posted) <> sum(taken) OR min(day) <> max(day)`;

/** One entry on one account, anew. */
const anew = (
  account: string,
  entry: string,
) => `DELETE FROM bank_gaps WHERE account_id = ${account} AND entry_id = ${entry};
    ${gapsOf(`p.entry_id = ${entry} AND p.account_id = ${account}`, `b.entry_id = ${entry} AND a.id = ${account}`)};`;

const accountOf = (row: string) =>
  `(SELECT id FROM accounts WHERE client_id = ${row}.client_id AND code = ${row}.account)`;

/** Whether an account has lines of a bank. */
const hasLines = (account: string) => `EXISTS (SELECT 1 FROM accounts a
    CROSS JOIN bank_lines b ON b.client_id = a.client_id AND b.account = a.code WHERE a.id = ${account})`;

/** Whether a line is the first of its account: until then nobody asked what its entries are at the bank. */
const IS_FIRST = `NOT EXISTS (SELECT 1 FROM bank_lines b
    WHERE b.client_id = new.client_id AND b.account = new.account AND b.id <> new.id)`;

/**
 * Entries on accounts that have lines of a bank, of which the ledger and the bank say different things on some day, kept
 * by triggers in the transaction of what they compare. So agreeing a bank costs what is apart on the day that is asked
 * for, not all entries of all years: who has no row agrees on every day.
 * - `from_day`: the first day of its entry and its lines
 * - `until_day`: the day from which both say the same
 * - `lines`: how many lines it has
 * - `amount`: what its entry has on the account, debit positive
 */
export const bankGaps: Migration = {
  name: "2026-11-30-bank-gaps",
  statements: [
    `CREATE TABLE bank_gaps (
    account_id INTEGER NOT NULL REFERENCES accounts,
    entry_id INTEGER NOT NULL REFERENCES entries,
    from_day TEXT NOT NULL,
    until_day TEXT NOT NULL,
    lines INTEGER NOT NULL,
    amount INTEGER NOT NULL,
    PRIMARY KEY (account_id, entry_id)
  ) WITHOUT ROWID`,
    `CREATE INDEX bank_gaps_by_day ON bank_gaps (account_id, until_day, from_day, lines, amount)`,
    `CREATE INDEX bank_gaps_of_entry ON bank_gaps (entry_id)`,
    `CREATE INDEX bank_lines_unbooked ON bank_lines (client_id, account, date) WHERE entry_id IS NULL`,
    gapsOf(
      `p.account_id IN (SELECT a.id FROM accounts a
        WHERE EXISTS (SELECT 1 FROM bank_lines b WHERE b.client_id = a.client_id AND b.account = a.code))`,
      "1 = 1",
    ),
    ...keptBy(
      {
        table: "postings",
        name: "postings_at_banks",
        columns: "entry_id, account_id, date, amount, live",
        when: (row) => hasLines(`${row}.account_id`),
      },
      (row) => anew(`${row}.account_id`, `${row}.entry_id`),
    ),
    ...keptBy(
      {
        table: "bank_lines",
        name: "bank_lines_matched",
        columns: "account, date, amount, entry_id",
        when: (row) => `${row}.entry_id IS NOT NULL`,
      },
      (row) => anew(accountOf(row), `${row}.entry_id`),
    ),
    trigger(
      "bank_lines_begin",
      "AFTER INSERT ON bank_lines",
      `DELETE FROM bank_gaps WHERE account_id = ${accountOf("new")};
    ${gapsOf(`p.account_id = ${accountOf("new")}`, `a.id = ${accountOf("new")}`)};`,
      IS_FIRST,
    ),
  ],
};
