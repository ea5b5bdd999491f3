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

/** What an account and the lines of its bank hold apart on a day. */
export function bankTables(clientId: number, day: string, account: string): ApartTables {
  return {
    tables: `own AS (SELECT * FROM bank_lines WHERE client_id = $1 AND account = $3 AND date <= $2),
      led AS MATERIALIZED (
        SELECT p.entry_id AS entry, sum(p.amount) AS amount FROM accounts a
          CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
        WHERE a.client_id = $1 AND a.code = $3 GROUP BY p.entry_id),
      taken AS (SELECT entry_id AS entry, sum(amount) AS amount FROM own WHERE entry_id IS NOT NULL GROUP BY entry_id),
      apart AS (
        SELECT CASE WHEN t.entry IS NOT NULL THEN 'amount'
            WHEN e.date < (SELECT min(date) FROM bank_lines WHERE client_id = $1 AND account = $3) THEN 'before'
            ELSE 'transit' END AS cause,
          CASE WHEN e.payment_id IS NOT NULL THEN 'payment/' || e.payment_id
            WHEN e.document_id IS NOT NULL THEN 'document/' || e.document_id ELSE 'entry/' || e.id END AS ref,
          e.date, coalesce(d.number, y.number, '') AS number, coalesce(c.name, '') AS party, e.text,
          coalesce(t.amount, 0) - l.amount AS amount
        FROM led l JOIN entries e ON e.id = l.entry LEFT JOIN taken t ON t.entry = l.entry
          LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN payments y ON y.id = e.payment_id
          LEFT JOIN contacts c ON c.id = coalesce(d.contact_id, y.contact_id)
        UNION ALL
        SELECT CASE WHEN b.entry_id IS NOT NULL THEN 'ahead' WHEN b.state = 'ignored' THEN 'aside' ELSE 'unbooked' END, NULL,
          b.date, b.reference, b.party, b.text || coalesce(': ' || b.reason, ''), b.amount
        FROM own b WHERE b.entry_id IS NULL OR b.entry_id NOT IN (SELECT entry FROM led))`,
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
