import { PassThrough, Readable, pipeline } from "node:stream";
import { finished } from "node:stream/promises";
import { setImmediate } from "node:timers/promises";
import Papa from "papaparse";
import { ZipFile } from "yazl";
import type { Work } from "../../base/work.ts";
import { formatAmount } from "@fiscalon/core/money/amount";
import { safeCell } from "../../exports/safeCell.ts";
import { loadSetup } from "../../books/loadSetup.ts";

/** So many rows are read at a time, */
const AT_ONCE = 1000;
/** and so many are written before others have their turn. */
const IN_A_TURN = 100;

interface FileOfSet {
  /** What stands in each column, as SQL. */
  columns: Readonly<Record<string, string>>;
  from: string;
  where?: string;
  row: string;
  amounts?: readonly string[];
}

/** Columns that are called as they are in their table. */
function plain(table: string, ...names: string[]): Record<string, string> {
  return Object.fromEntries(names.map((name) => [name, `${table}.${name}`]));
}

/**
 * Each file of the set: what it is of, in the order in which it was entered, and which of its columns are amounts in
 * minor units. `row` is what rows are counted by.
 */
const FILES: Readonly<Record<string, FileOfSet>> = {
  accounts: {
    columns: plain("a", "code", "name", "type", "role", "levy", "topic", "usual_code"),
    from: "accounts a",
    row: "a.id",
  },
  contacts: {
    columns: plain("c", "id", "name", "country", "region", "tax_number", "registered"),
    from: "contacts c",
    row: "c.id",
  },
  items: {
    columns: {
      ...plain("i", "name", "unit_price", "supply", "tax_class"),
      ...plain("i", "sale_code", "purchase_code", "sale_account", "purchase_account"),
    },
    from: "items i",
    row: "i.id",
  },
  documents: {
    columns: {
      ...plain("d", "id", "kind", "number", "date", "tax_point"),
      contact: "c.name",
      ...plain("d", "currency", "rate", "net", "tax", "gross", "ledger_date", "corrects", "note"),
    },
    from: "documents d LEFT JOIN contacts c ON c.id = d.contact_id",
    where: "d.state = 'posted' AND d.date BETWEEN $3 AND $4",
    row: "d.id",
    amounts: ["net", "tax", "gross"],
  },
  lines: {
    columns: {
      ...plain("l", "document_id", "no", "text", "quantity", "unit_price"),
      ...plain("l", "code", "account", "item", "net", "gross"),
    },
    from: "lines l CROSS JOIN documents d ON d.id = l.document_id",
    where: "d.state = 'posted' AND d.date BETWEEN $3 AND $4",
    row: "l.id",
    amounts: ["net", "gross"],
  },
  payments: {
    columns: {
      ...plain("p", "id", "kind", "number", "date"),
      contact: "c.name",
      amount: "p.base",
      ...plain("p", "on_account", "reference"),
      settles: `(SELECT group_concat(d.number, ' ') FROM allocations a JOIN documents d ON d.id = a.document_id
        WHERE a.payment_id = p.id)`,
    },
    from: "payments p LEFT JOIN contacts c ON c.id = p.contact_id",
    where: "p.state = 'posted' AND p.date BETWEEN $3 AND $4",
    row: "p.id",
    amounts: ["amount", "on_account"],
  },
  postings: {
    columns: {
      entry: "e.id",
      ...plain("e", "date", "kind"),
      entry_text: "e.text",
      account: "a.code",
      ...plain("p", "amount", "levy", "text"),
    },
    from: "postings p CROSS JOIN entries e ON e.id = p.entry_id CROSS JOIN accounts a ON a.id = p.account_id",
    where: "p.live = 1 AND p.date BETWEEN $3 AND $4",
    row: "p.id",
    amounts: ["amount"],
  },
  "tax-facts": {
    columns: {
      ...plain("f", "document_id", "line", "levy", "code", "treatment", "rate", "direction", "net", "tax"),
      ...plain("f", "recoverable", "tax_point", "period_end", "tags", "held", "payment_id"),
    },
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
  const zip = new ZipFile();
  const stream = new PassThrough();
  const failed = (error: Error) => void stream.destroy(error);
  zip.once("error", failed);
  pipeline(zip.outputStream, stream, () => undefined);
  work
    .atOneMoment(async (work) => {
      for (const [name, of] of Object.entries(FILES)) {
        if (stream.destroyed) return;
        const rows = Readable.from(pagesOf(work, of, plain.digits, [from, to]));
        const leave = () => rows.destroy();
        stream.once("close", leave);
        zip.addReadStream(rows, `${name}.csv`, { compressionLevel: 1 });
        await finished(rows);
        stream.off("close", leave);
      }
      zip.end();
    })
    .catch(failed);
  return stream;
}

type Cell = string | number | null;

/**
 * The text of one file, some rows at a time; the next ones are read while those before are written. The database hands
 * them over as one text, which costs the server a third of taking them row by row.
 */
async function* pagesOf(
  work: Work,
  { columns, from, where, row, amounts = [] }: FileOfSet,
  digits: number,
  span: readonly [string, string],
): AsyncGenerator<string> {
  const fields = Object.keys(columns);
  const named = Object.values(columns).map((expression, at) => `${expression} AS c${at}`);
  const sql = `SELECT max(row_id) AS last, json_group_array(json_array(${fields.map((_, at) => `c${at}`).join(", ")}) ORDER BY row_id) AS rows
    FROM (SELECT ${row} AS row_id, ${named.join(", ")} FROM ${from}
      WHERE ${row} > $1 ${where === undefined ? "" : `AND ${where}`} ORDER BY ${row} LIMIT $2)`;
  const after = (id: number) =>
    work.one<{ last: number | null; rows: string }>(
      sql,
      where === undefined ? [id, AT_ONCE] : [id, AT_ONCE, ...span],
    );
  const write = fields.map((column) => writer(amounts.includes(column), digits));
  yield `\ufeff${Papa.unparse([fields])}\r\n`;
  let next = after(0);
  try {
    for (;;) {
      const { last, rows } = await next;
      if (last === null) return;
      next = after(last);
      const cells = JSON.parse(rows) as Cell[][];
      for (let first = 0; first < cells.length; first += IN_A_TURN) {
        const data = cells
          .slice(first, first + IN_A_TURN)
          .map((row) => row.map((cell, at) => write[at]?.(cell)));
        yield `${Papa.unparse(data)}\r\n`;
        await setImmediate();
      }
    }
  } finally {
    // Whoever reads may be gone: the transaction ends after what is read in it.
    await next.catch(() => undefined);
  }
}

/** What writes the cells of a column. */
function writer(isAmount: boolean, digits: number): (cell: Cell) => string {
  return (cell) =>
    isAmount && typeof cell === "number"
      ? formatAmount(cell, digits)
      : cell === null
        ? ""
        : safeCell(String(cell));
}
