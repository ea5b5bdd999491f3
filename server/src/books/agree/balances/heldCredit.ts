import type { Work } from "../../../base/work.ts";
import { balanceSql } from "../../balanceSql.ts";
import type { ApartTables } from "./apart.ts";

/** Why the account of input tax not yet deducted and the documents that wait differ. */
export const HELD_CAUSES: Readonly<Record<string, string>> = {
  journals: "Entries without a document that waits: journals, opening balances",
  documents: "Documents in the ledger at another amount, or on another day",
};

/** What is on the account on day $2 by entry, and what waits by document: not released up to then. */
const SIDES = `led AS MATERIALIZED (
    SELECT e.id AS entry, e.document_id AS document, sum(p.amount) AS amount
    FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
      JOIN entries e ON e.id = p.entry_id
    WHERE a.client_id = $1 AND a.role = 'held-credit' GROUP BY e.id),
  waits AS MATERIALIZED (
    SELECT f.document_id AS document, sum(f.recoverable) AS amount
    FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN credit_releases r ON r.document_id = f.document_id
    WHERE f.client_id = $1 AND f.live = 1 AND f.awaits IS NOT NULL AND d.opening = 0 AND d.ledger_date <= $2
      AND (r.id IS NULL OR r.released_on > $2) GROUP BY f.document_id)`;

/** What the account of input tax not yet deducted and its documents hold apart on a day. */
export function heldTables(clientId: number, day: string): ApartTables {
  return {
    tables: `${SIDES},
      posted AS (SELECT document, sum(amount) AS amount FROM led WHERE document IN (
        SELECT f.document_id FROM facts f WHERE f.client_id = $1 AND f.live = 1 AND f.awaits IS NOT NULL) GROUP BY document),
      both AS (SELECT document FROM posted UNION SELECT document FROM waits),
      apart AS (
        SELECT 'documents' AS cause, 'document/' || d.id AS ref, d.date, d.number, coalesce(c.name, '') AS party, '' AS text,
          coalesce(w.amount, 0) - coalesce(p.amount, 0) AS amount
        FROM both b JOIN documents d ON d.id = b.document LEFT JOIN waits w ON w.document = b.document
          LEFT JOIN posted p ON p.document = b.document LEFT JOIN contacts c ON c.id = d.contact_id
        UNION ALL
        SELECT 'journals', CASE WHEN l.document IS NULL THEN 'entry/' || l.entry ELSE 'document/' || l.document END, e.date,
          '', '', e.text, -l.amount
        FROM led l JOIN entries e ON e.id = l.entry
        WHERE l.document IS NULL OR l.document NOT IN (SELECT document FROM both))`,
    bind: [clientId, day],
  };
}

/** The balance of the account on a day, and the tax of the documents that wait. */
export function heldFigures(
  work: Work,
  clientId: number,
  day: string,
): Promise<{ left: number; right: number }> {
  return work.one(
    `WITH ${SIDES} SELECT (SELECT coalesce(sum(${balanceSql("$1", "a.id", "$2", true)}), 0) FROM accounts a
         WHERE a.client_id = $1 AND a.role = 'held-credit') AS left,
       (SELECT coalesce(sum(amount), 0) FROM waits) AS right`,
    [clientId, day],
  );
}
