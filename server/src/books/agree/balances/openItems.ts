import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import type { Work } from "../../../base/work.ts";
import { inKinds, whichWay } from "../../../db/kindSql.ts";
import { balanceSql } from "../../balanceSql.ts";
import type { ApartTables } from "./apart.ts";

export type PartySide = "receivable" | "payable";

const SIDES = {
  receivable: inKinds("d.kind", ({ direction }, kind) => direction === "sale" && isOpenItem(kind)),
  payable: inKinds("d.kind", ({ direction }, kind) => direction === "purchase" && isOpenItem(kind)),
};

/** Why debtors or creditors and the open items differ. */
export const OPEN_ITEM_CAUSES: Readonly<Record<string, string>> = {
  account: "Money on account: received or paid, and on no document",
  journals: "Entries without an open item: journals, opening balances",
  late: "Dated before, in the ledger later",
  posted: "Documents posted at another amount",
};

/** Documents of a side that are dated, or stand in the ledger, up to $2, as \`docs\`; money in is positive. */
const docs = (side: PartySide) => `docs AS MATERIALIZED (
  SELECT d.id, d.number, d.date, d.contact_id AS contact, d.date <= $2 AS dated, ${whichWay("d.kind")} * d.gross AS gross,
    ${whichWay("d.kind")} AS way
  FROM documents d INDEXED BY documents_totals WHERE d.client_id = $1 AND d.state = 'posted' AND ${SIDES[side]} AND (d.date <= $2 OR d.ledger_date <= $2))`;

/** What the accounts of a side and its open items hold apart on a day. */
export function openItemTables(clientId: number, day: string, side: PartySide): ApartTables {
  return {
    tables: `led AS MATERIALIZED (
        SELECT p.entry_id AS entry, e.document_id AS document, e.payment_id AS payment, sum(p.amount) AS amount
        FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
          JOIN entries e ON e.id = p.entry_id
        WHERE a.client_id = $1 AND a.role = $3 GROUP BY p.entry_id),
      ${docs(side)},
      ofDocuments AS (SELECT document, sum(amount) AS amount FROM led WHERE payment IS NULL GROUP BY document),
      settled AS (
        SELECT x.payment_id AS payment, -sum(d.way * x.base) AS amount FROM allocations x
          JOIN payments p ON p.id = x.payment_id JOIN docs d ON d.id = x.document_id
        WHERE x.live = 1 AND p.state = 'posted' AND p.date <= $2 AND d.dated GROUP BY x.payment_id),
      paid AS (
        SELECT payment, sum(amount) AS amount FROM led WHERE payment IS NOT NULL GROUP BY payment),
      payers AS (SELECT payment FROM settled UNION SELECT payment FROM paid),
      apart AS (
        SELECT CASE WHEN d.dated AND o.amount IS NULL THEN 'late' ELSE 'posted' END AS cause, 'document/' || d.id AS ref,
          d.date, d.number, coalesce(c.name, '') AS party, '' AS text,
          d.dated * d.gross - coalesce(o.amount, 0) AS amount
        FROM docs d LEFT JOIN ofDocuments o ON o.document = d.id LEFT JOIN contacts c ON c.id = d.contact
        UNION ALL
        SELECT 'account', 'payment/' || y.id, y.date, y.number, coalesce(c.name, ''), y.note,
          coalesce(s.amount, 0) - coalesce(p.amount, 0)
        FROM payers w JOIN payments y ON y.id = w.payment LEFT JOIN settled s ON s.payment = w.payment
          LEFT JOIN paid p ON p.payment = w.payment LEFT JOIN contacts c ON c.id = y.contact_id
        UNION ALL
        SELECT 'journals', CASE WHEN l.document IS NULL THEN 'entry/' || l.entry ELSE 'document/' || l.document END, e.date,
          coalesce(d.number, ''), coalesce(c.name, ''), e.text, -l.amount
        FROM led l JOIN entries e ON e.id = l.entry LEFT JOIN documents d ON d.id = l.document
          LEFT JOIN contacts c ON c.id = d.contact_id
        WHERE l.payment IS NULL AND (l.document IS NULL OR l.document NOT IN (SELECT id FROM docs)))`,
    bind: [clientId, day, side],
  };
}

/** The balance of the accounts of a side on a day, debit positive, and what its documents leave open. */
export async function openItemFigures(
  work: Work,
  clientId: number,
  day: string,
  side: PartySide,
): Promise<{ left: number; right: number }> {
  const isOfSide = SIDES[side];
  return work.one(
    `SELECT (SELECT coalesce(sum(${balanceSql("$1", "a.id", "$2", true)}), 0) FROM accounts a
         WHERE a.client_id = $1 AND a.role = $3) AS left,
       (SELECT coalesce(sum(${whichWay("d.kind")} * d.open_base), 0) FROM documents d
         WHERE d.client_id = $1 AND (d.open_amount <> 0 OR d.open_base <> 0) AND d.date <= $2 AND ${isOfSide})
       + (SELECT coalesce(sum(${whichWay("d.kind")} * x.base), 0) FROM payments p CROSS JOIN allocations x ON x.payment_id = p.id
           CROSS JOIN documents d ON d.id = x.document_id
         WHERE p.client_id = $1 AND p.state = 'posted' AND p.date > $2 AND x.live = 1 AND d.state = 'posted'
           AND d.date <= $2 AND ${isOfSide}) AS right`,
    [clientId, day, side],
  );
}
