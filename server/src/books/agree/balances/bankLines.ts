import type { Work } from "../../../base/work.ts";
import { balanceSql } from "../../balanceSql.ts";
import type { ApartTables } from "./apart.ts";

/** Why an account of the ledger and the lines of the bank differ. */
export const BANK_CAUSES: Readonly<Record<string, string>> = {
  before: "Before the first line of the bank",
  transit: "In the ledger, not yet at the bank",
  unbooked: "At the bank, not yet in the ledger",
  aside: "Lines of the bank that were set aside",
  ahead: "At the bank before it is in the ledger",
  amount: "Booked at another amount than the line",
};

/**
 * What an account and the lines of its bank hold apart on a day: entries without a line, entries and lines that differ
 * or are dated on both sides of the day (`db/books/bankGaps.ts`), and lines without an entry.
 */
export function bankTables(clientId: number, day: string, account: string): ApartTables {
  const early = "g.date < (SELECT min(date) FROM bank_lines WHERE client_id = $1 AND account = $3)";
  const unlined = `CASE WHEN ${early} THEN 'before' ELSE 'transit' END`;
  return {
    tables: `gaps AS (
        SELECT g.entry_id AS entry, g.account_id AS account, g.from_day AS date, g.lines, g.amount FROM accounts a
          CROSS JOIN bank_gaps g ON g.account_id = a.id AND g.until_day > $2 AND g.from_day <= $2
        WHERE a.client_id = $1 AND a.code = $3),
      lined AS MATERIALIZED (
        SELECT entry, (SELECT e.date FROM entries e WHERE e.id = gaps.entry) AS date,
          (SELECT sum(p.amount) FROM postings p WHERE p.entry_id = gaps.entry AND p.account_id = gaps.account
            AND p.live = 1 AND p.date <= $2) AS posted,
          (SELECT sum(b.amount) FROM bank_lines b WHERE b.entry_id = gaps.entry AND b.client_id = $1
            AND b.account = $3 AND b.date <= $2) AS taken
        FROM gaps WHERE lines > 0),
      apart AS (
        SELECT ${unlined} AS cause, g.date, g.entry, NULL AS line, -g.amount AS amount FROM gaps g WHERE g.lines = 0
        UNION ALL
        SELECT CASE WHEN g.taken IS NOT NULL THEN 'amount' ELSE ${unlined} END, g.date, g.entry, NULL,
          coalesce(g.taken, 0) - g.posted
        FROM lined g WHERE g.posted IS NOT NULL
        UNION ALL
        SELECT 'ahead', b.date, NULL, b.id, b.amount FROM lined g CROSS JOIN bank_lines b ON b.entry_id = g.entry
        WHERE g.posted IS NULL AND b.client_id = $1 AND b.account = $3 AND b.date <= $2
        UNION ALL
        SELECT CASE WHEN b.state = 'ignored' THEN 'aside' ELSE 'unbooked' END, b.date, NULL, b.id, b.amount FROM bank_lines b
        WHERE b.client_id = $1 AND b.account = $3 AND b.date <= $2 AND b.entry_id IS NULL)`,
    named: `SELECT CASE WHEN e.payment_id IS NOT NULL THEN 'payment/' || e.payment_id
            WHEN e.document_id IS NOT NULL THEN 'document/' || e.document_id
            WHEN e.id IS NOT NULL THEN 'entry/' || e.id END AS ref,
          r.date, coalesce(d.number, y.number, b.reference, '') AS number,
          coalesce(c.name, b.party, '') AS party, coalesce(e.text, b.text || coalesce(': ' || b.reason, '')) AS text, r.amount, total
        FROM page r LEFT JOIN entries e ON e.id = r.entry LEFT JOIN bank_lines b ON b.id = r.line
          LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN payments y ON y.id = e.payment_id
          LEFT JOIN contacts c ON c.id = coalesce(d.contact_id, y.contact_id)`,
    order: "entry, line",
    bind: [clientId, day, account],
  };
}

/** The accounts that have lines of a bank, with both balances on a day. */
export async function bankFigures(
  work: Work,
  clientId: number,
  day: string,
): Promise<{ account: string; name: string; left: number; right: number }[]> {
  return work.rows(
    `SELECT a.code AS account, a.name, ${balanceSql("$1", "a.id", "$2", true)} AS left,
       coalesce((SELECT sum(b.amount) FROM bank_lines b
         WHERE b.client_id = $1 AND b.account = a.code AND b.date <= $2), 0) AS right
     FROM accounts a WHERE a.client_id = $1
       AND EXISTS (SELECT 1 FROM bank_lines b WHERE b.client_id = $1 AND b.account = a.code) ORDER BY a.code`,
    [clientId, day],
  );
}
