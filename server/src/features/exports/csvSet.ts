import type { Readable } from "node:stream";
import { Zip, ZipDeflate } from "fflate";
import Papa from "papaparse";
import type { Work } from "../../base/work.ts";
import { formatAmount } from "@fiscalon/core/money/amount";
import { backPressed } from "../../exports/backPressed.ts";
import { safeCell } from "../../exports/safeCell.ts";
import { loadSetup } from "../../books/loadSetup.ts";

/** So many rows are read, written and sent before others have their turn. */
const AT_ONCE = 2000;

interface FileOfSet {
  columns: string;
  from: string;
  where?: string;
  row: string;
  amounts?: readonly string[];
}

/**
 * Each file of the set: what it is of, in the order in which it was entered, and which of its columns are amounts in
 * minor units. `row` is what rows are counted by.
 */
const FILES: Readonly<Record<string, FileOfSet>> = {
  accounts: {
    columns: "a.code, a.name, a.type, a.role, a.levy, a.topic, a.usual_code",
    from: "accounts a",
    row: "a.id",
  },
  contacts: {
    columns: "c.id, c.name, c.country, c.region, c.tax_number, c.registered",
    from: "contacts c",
    row: "c.id",
  },
  items: {
    columns:
      "i.name, i.unit_price, i.supply, i.tax_class, i.sale_code, i.purchase_code, i.sale_account, i.purchase_account",
    from: "items i",
    row: "i.id",
  },
  documents: {
    columns: `d.id, d.kind, d.number, d.date, d.tax_point, c.name AS contact, d.currency, d.rate, d.net, d.tax, d.gross,
      d.ledger_date, d.corrects, d.note`,
    from: "documents d LEFT JOIN contacts c ON c.id = d.contact_id",
    where: "d.state = 'posted' AND d.date BETWEEN $3 AND $4",
    row: "d.id",
    amounts: ["net", "tax", "gross"],
  },
  lines: {
    columns:
      "l.document_id, l.no, l.text, l.quantity, l.unit_price, l.code, l.account, l.item, l.net, l.gross",
    from: "lines l CROSS JOIN documents d ON d.id = l.document_id",
    where: "d.state = 'posted' AND d.date BETWEEN $3 AND $4",
    row: "l.id",
    amounts: ["net", "gross"],
  },
  payments: {
    columns: `p.id, p.kind, p.number, p.date, c.name AS contact, p.base AS amount, p.on_account, p.reference,
      (SELECT group_concat(d.number, ' ') FROM allocations a JOIN documents d ON d.id = a.document_id
        WHERE a.payment_id = p.id) AS settles`,
    from: "payments p LEFT JOIN contacts c ON c.id = p.contact_id",
    where: "p.state = 'posted' AND p.date BETWEEN $3 AND $4",
    row: "p.id",
    amounts: ["amount", "on_account"],
  },
  postings: {
    columns:
      "e.id AS entry, e.date, e.kind, e.text AS entry_text, a.code AS account, p.amount, p.levy, p.text",
    from: "postings p CROSS JOIN entries e ON e.id = p.entry_id CROSS JOIN accounts a ON a.id = p.account_id",
    where: "p.live = 1 AND p.date BETWEEN $3 AND $4",
    row: "p.id",
    amounts: ["amount"],
  },
  "tax-facts": {
    columns: `f.document_id, f.line, f.levy, f.code, f.treatment, f.rate, f.direction, f.net, f.tax, f.recoverable,
      f.tax_point, f.period_end, f.tags, f.held, f.payment_id`,
    from: "facts f",
    where: "f.live = 1 AND f.tax_point BETWEEN $3 AND $4",
    row: "f.id",
    amounts: ["net", "tax", "recoverable"],
  },
};

/**
 * Everything between two days as CSV files in one archive, one for each kind of record, as a stream: some rows are read,
 * written and sent before the next ones are, all of one moment of the books.
 */
export async function csvSet(work: Work, clientId: number, from: string, to: string): Promise<Readable> {
  const { plain } = await loadSetup(work, clientId);
  const { ready, sent, failed, stream } = backPressed();
  const zip = new Zip((error, chunk, final) => (error ? failed(error) : sent(chunk, final)));
  work
    .atOneMoment(async (work) => {
      for (const [name, of] of Object.entries(FILES)) {
        const file = new ZipDeflate(`${name}.csv`, { level: 1 });
        zip.add(file);
        for await (const text of pagesOf(work, of, plain.digits, [from, to])) {
          file.push(Buffer.from(text));
          await ready();
        }
        file.push(new Uint8Array(0), true);
      }
      zip.end();
    })
    .catch(failed);
  return stream;
}

async function* pagesOf(
  work: Work,
  { columns, from, where, row, amounts = [] }: FileOfSet,
  digits: number,
  span: readonly [string, string],
): AsyncGenerator<string> {
  yield "\ufeff";
  let after = 0;
  for (let first = true; ; first = false) {
    const rows = await work.rows<Record<string, unknown> & { row_id: number }>(
      `SELECT ${row} AS row_id, ${columns} FROM ${from} WHERE ${row} > $1 ${where === undefined ? "" : `AND ${where}`}
       ORDER BY ${row} LIMIT $2`,
      where === undefined ? [after, AT_ONCE] : [after, AT_ONCE, ...span],
    );
    const last = rows.at(-1);
    if (last === undefined) return;
    after = last.row_id;
    const written = rows.map(({ row_id: _row, ...cells }) => writtenRow(cells, amounts, digits));
    yield `${Papa.unparse(written, { header: first })}\r\n`;
  }
}

function writtenRow(
  row: Readonly<Record<string, unknown>>,
  amounts: readonly string[],
  digits: number,
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(row).map(([column, value]) => [
      column,
      amounts.includes(column) && typeof value === "number"
        ? formatAmount(value, digits)
        : safeCell(value === null ? "" : String(value as string | number)),
    ]),
  );
}
