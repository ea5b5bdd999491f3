import type { Work } from "../../../base/work.ts";
import { balanceSql } from "../../balanceSql.ts";
import type { ApartTables } from "./apart.ts";

/** Why money of card terminals still stands on the clearing account. */
export const CARD_CAUSES: Readonly<Record<string, string>> = {
  transit: "Taken by card and not paid out yet, by day",
  posted: "Days posted at another amount than the terminal took",
  journals: "Entries on the account that are no takings, fees or payouts",
};

/**
 * What makes up the balance of the clearing account on a day: takings less fees of days that no payout has reached yet,
 * the newest last; days the ledger has at another amount than the terminals; and entries from elsewhere.
 */
export function cardTables(clientId: number, day: string): ApartTables {
  return {
    tables: `led AS MATERIALIZED (
        SELECT e.document_id AS document, e.id AS entry, e.date, e.text, d.date AS day, d.number, sum(p.amount) AS amount,
          CASE WHEN d.source_key LIKE 'terminal%' THEN 'day' WHEN d.source_key LIKE 'payout:%' THEN 'payout' END AS kind
        FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
          JOIN entries e ON e.id = p.entry_id LEFT JOIN documents d ON d.id = e.document_id
        WHERE a.client_id = $1 AND a.role = 'card-clearing' GROUP BY e.id),
      taken AS (
        SELECT s.day, sum(s.gross) - sum(s.fees) AS net, min(s.document_id) AS document
        FROM terminals t JOIN terminal_sums s ON s.terminal_id = t.id
        WHERE t.client_id = $1 AND s.day <= $2 AND s.document_id <> 0 GROUP BY s.day),
      later AS (SELECT day, net, document, sum(net) OVER (ORDER BY day DESC) AS since FROM taken),
      owed AS (
        SELECT (SELECT coalesce(sum(net), 0) FROM taken)
          + (SELECT coalesce(sum(amount), 0) FROM led WHERE kind = 'payout') AS open),
      apart AS (
        SELECT 'transit' AS cause, 'document/' || document AS ref, day AS date, '' AS number, '' AS party,
          'Taken on ' || day || ', less fees' AS text,
          min((SELECT open FROM owed), since - net) - min((SELECT open FROM owed), since) AS amount FROM later
        UNION ALL
        SELECT 'posted', 'document/' || l.document, l.day, l.number, '', l.text,
          coalesce((SELECT net FROM taken t WHERE t.day = l.day), 0) - l.amount
        FROM (SELECT day, min(document) AS document, min(number) AS number, min(text) AS text, sum(amount) AS amount
          FROM led WHERE kind = 'day' GROUP BY day) l
        UNION ALL
        SELECT 'journals', CASE WHEN document IS NULL THEN 'entry/' || entry ELSE 'document/' || document END, date,
          coalesce(number, ''), '', text, -amount FROM led WHERE kind IS NULL)`,
    bind: [clientId, day],
  };
}

/** The balance of the clearing account on a day, where terminals or entries made one. */
export async function cardFigures(
  work: Work,
  clientId: number,
  day: string,
): Promise<{ account: string; name: string; left: number } | null> {
  const row = await work.row<{ account: string; name: string; left: number; used: number }>(
    `SELECT a.code AS account, a.name, ${balanceSql("$1", "a.id", "$2", true)} AS left,
       EXISTS (SELECT 1 FROM postings p WHERE p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2) AS used
     FROM accounts a WHERE a.client_id = $1 AND a.role = 'card-clearing' ORDER BY a.code LIMIT 1`,
    [clientId, day],
  );
  return row?.used ? row : null;
}
