import { zipSync } from "fflate";
import Papa from "papaparse";
import type { Bind } from "../../db/database.ts";
import type { Work } from "../../base/work.ts";
import { formatAmount } from "@fiscalon/core/money/amount";
import { safeCell } from "../../exports/safeCell.ts";
import { loadSetup } from "../../books/loadSetup.ts";

/** Each file of the set: its query, and which of its columns are amounts in minor units. */
const FILES: Readonly<Record<string, { sql: string; amounts?: readonly string[]; dated?: boolean }>> = {
  accounts: {
    sql: `SELECT code, name, type, role, levy, topic, usual_code FROM accounts WHERE client_id = $1 ORDER BY code`,
  },
  contacts: {
    sql: `SELECT id, name, country, region, tax_number, registered FROM contacts WHERE client_id = $1 ORDER BY id`,
  },
  items: {
    sql: `SELECT name, unit_price, supply, tax_class, sale_code, purchase_code, sale_account, purchase_account
       FROM items WHERE client_id = $1 ORDER BY id`,
  },
  documents: {
    sql: `SELECT d.id, d.kind, d.number, d.date, d.tax_point, c.name AS contact, d.currency, d.rate, d.net, d.tax, d.gross,
         d.ledger_date, d.corrects, d.note
       FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND d.date BETWEEN $2 AND $3 ORDER BY d.date, d.id`,
    amounts: ["net", "tax", "gross"],
    dated: true,
  },
  lines: {
    sql: `SELECT l.document_id, l.no, l.text, l.quantity, l.unit_price, l.code, l.account, l.item, l.net, l.gross
       FROM lines l JOIN documents d ON d.id = l.document_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND d.date BETWEEN $2 AND $3 ORDER BY d.date, d.id, l.no`,
    amounts: ["net", "gross"],
    dated: true,
  },
  payments: {
    sql: `SELECT p.id, p.kind, p.number, p.date, c.name AS contact, p.base AS amount, p.on_account, p.reference,
         (SELECT group_concat(d.number, ' ') FROM allocations a JOIN documents d ON d.id = a.document_id
           WHERE a.payment_id = p.id) AS settles
       FROM payments p LEFT JOIN contacts c ON c.id = p.contact_id
       WHERE p.client_id = $1 AND p.state = 'posted' AND p.date BETWEEN $2 AND $3 ORDER BY p.date, p.id`,
    amounts: ["amount", "on_account"],
    dated: true,
  },
  postings: {
    sql: `SELECT e.id AS entry, e.date, e.kind, e.text AS entry_text, a.code AS account, p.amount, p.levy, p.text
       FROM postings p JOIN entries e ON e.id = p.entry_id JOIN accounts a ON a.id = p.account_id
       WHERE p.client_id = $1 AND p.live = 1 AND p.date BETWEEN $2 AND $3 ORDER BY p.date, e.id, p.id`,
    amounts: ["amount"],
    dated: true,
  },
  "tax-facts": {
    sql: `SELECT f.document_id, f.line, f.levy, f.code, f.treatment, f.rate, f.direction, f.net, f.tax, f.recoverable,
         f.tax_point, f.period_end, f.tags, f.held, f.payment_id
       FROM facts f WHERE f.client_id = $1 AND f.live = 1 AND f.tax_point BETWEEN $2 AND $3 ORDER BY f.tax_point, f.id`,
    amounts: ["net", "tax", "recoverable"],
    dated: true,
  },
};

/** Everything between two days as CSV files in one archive, one for each kind of record. */
export async function csvSet(work: Work, clientId: number, from: string, to: string): Promise<Uint8Array> {
  const { plain } = await loadSetup(work, clientId);
  const files: Record<string, Uint8Array> = {};
  for (const [name, { sql, amounts = [], dated }] of Object.entries(FILES)) {
    const bind: Bind = dated ? [clientId, from, to] : [clientId];
    const rows = await work.rows<Record<string, unknown>>(sql, bind);
    const written = rows.map((row) =>
      Object.fromEntries(
        Object.entries(row).map(([column, value]) => [
          column,
          amounts.includes(column) && typeof value === "number"
            ? formatAmount(value, plain.digits)
            : safeCell(value === null ? "" : String(value as string | number)),
        ]),
      ),
    );
    files[`${name}.csv`] = Buffer.from(`\ufeff${Papa.unparse(written)}`);
  }
  return zipSync(files);
}
