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

/**
 * Documents and payments that may keep something apart on some day (`db/books/partyGaps.ts`), with their entries, and
 * entries without either, as `led`. Of all others entries and open items agree on every day.
 */
const MAY_BE_APART = `mayDocuments AS MATERIALIZED (
      SELECT document_id AS id FROM document_gaps
      UNION
      SELECT id FROM documents INDEXED BY documents_in_ledger_later WHERE client_id = $1 AND ledger_date <> date),
    mayPayments AS MATERIALIZED (SELECT payment_id AS id FROM payment_gaps),
    ofEntries AS (
      SELECT e.id, e.document_id AS document, NULL AS payment
      FROM mayDocuments m CROSS JOIN entries e ON e.document_id = m.id AND e.payment_id IS NULL
      UNION ALL
      SELECT e.id, e.document_id, e.payment_id FROM mayPayments m CROSS JOIN entries e ON e.payment_id = m.id
      UNION ALL
      SELECT id, NULL, NULL FROM entries INDEXED BY entries_alone
      WHERE client_id = $1 AND document_id IS NULL AND payment_id IS NULL AND live = 1 AND date <= $2),
    led AS MATERIALIZED (
      SELECT o.id AS entry, o.document, o.payment, sum(p.amount) AS amount
      FROM ofEntries o CROSS JOIN postings p ON p.entry_id = o.id AND p.live = 1 AND p.date <= $2
        CROSS JOIN accounts a ON a.id = p.account_id AND a.role = $3
      GROUP BY o.id)`;

/** Such documents of a side that are dated, or stand in the ledger, up to $2, as \`docs\`; money in is positive. */
const docs = (side: PartySide) => `docs AS MATERIALIZED (
      SELECT d.id, d.number, d.date, d.contact_id AS contact, d.date <= $2 AS dated, ${whichWay("d.kind")} * d.gross AS gross
      FROM mayDocuments m CROSS JOIN documents d ON d.id = m.id
      WHERE d.state = 'posted' AND ${SIDES[side]} AND (d.date <= $2 OR d.ledger_date <= $2))`;

/** What the accounts of a side and its open items hold apart on a day. */
export function openItemTables(clientId: number, day: string, side: PartySide): ApartTables {
  return {
    tables: `${MAY_BE_APART},
      ${docs(side)},
      ofDocuments AS (SELECT document, sum(amount) AS amount FROM led WHERE payment IS NULL GROUP BY document),
      settled AS (
        SELECT x.payment_id AS payment, -sum(${whichWay("d.kind")} * x.base) AS amount
        FROM mayPayments m CROSS JOIN payments p ON p.id = m.id AND p.state = 'posted' AND p.date <= $2
          CROSS JOIN allocations x ON x.payment_id = p.id AND x.live = 1
          CROSS JOIN documents d ON d.id = x.document_id AND d.state = 'posted' AND d.date <= $2 AND ${SIDES[side]}
        GROUP BY x.payment_id),
      paid AS (
        SELECT payment, sum(amount) AS amount FROM led WHERE payment IS NOT NULL GROUP BY payment),
      payers AS (SELECT payment FROM settled UNION SELECT payment FROM paid),
      apart AS (
        SELECT CASE WHEN item.dated AND own.amount IS NULL THEN 'late' ELSE 'posted' END AS cause, 'document/' || item.id AS ref,
          item.date, item.number, coalesce(c.name, '') AS party, '' AS text,
          item.dated * item.gross - coalesce(own.amount, 0) AS amount
        FROM docs item LEFT JOIN ofDocuments own ON own.document = item.id LEFT JOIN contacts c ON c.id = item.contact
        UNION ALL
        SELECT 'account', 'payment/' || y.id, y.date, y.number, coalesce(c.name, ''), y.note,
          coalesce(s.amount, 0) - coalesce(p.amount, 0)
        FROM payers w JOIN payments y ON y.id = w.payment LEFT JOIN settled s ON s.payment = w.payment
          LEFT JOIN paid p ON p.payment = w.payment LEFT JOIN contacts c ON c.id = y.contact_id
        UNION ALL
        SELECT 'journals', CASE WHEN move.document IS NULL THEN 'entry/' || move.entry ELSE 'document/' || move.document END, e.date,
          coalesce(d.number, ''), coalesce(c.name, ''), e.text, -move.amount
        FROM led move JOIN entries e ON e.id = move.entry LEFT JOIN documents d ON d.id = move.document
          LEFT JOIN contacts c ON c.id = d.contact_id
        WHERE move.payment IS NULL AND (move.document IS NULL OR move.document NOT IN (SELECT id FROM docs)))`,
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
