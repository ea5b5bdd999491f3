import Papa from "papaparse";
import { FiscalError } from "@fiscalon/core/errors";
import type { DateOrder } from "@fiscalon/core/calendar/parseDate";
import { HEADERS } from "@fiscalon/core/formats/registers/columns";
import { readSheet } from "@fiscalon/core/formats/registers/sheetColumns";
import type { SheetColumn } from "@fiscalon/core/formats/registers/sheetColumns";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { SheetBrief, SheetMapping, SheetSplit, SheetView } from "@fiscalon/contract/registerSheets";
import { decoded, encodingOf, refuseForeignFile } from "../../../base/files.ts";
import { isWorkbook } from "../../../base/workbook/sheets.ts";
import { firstSheetApart } from "../../../base/workbook/apart.ts";
import { notFound } from "../../../base/errors.ts";
import type { Work } from "../../../base/work.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import { AMOUNT_OF, insertSheet, sumOf } from "../../../books/agree/register/sheetSql.ts";

/** A sheet as it is kept. */
export interface SheetRecord {
  id: number;
  name: string;
  columns: SheetColumn[];
  mapping: SheetMapping;
}

/** Registers of a client that were dropped to be compared, newest first. */
export function sheetList(work: Work, clientId: number): Promise<SheetBrief[]> {
  return work.rows(
    `SELECT id, name, created_at AS createdAt, (SELECT count(*) FROM register_rows r WHERE r.sheet_id = s.id) AS rows
     FROM register_sheets s WHERE client_id = $1 ORDER BY id DESC`,
    [clientId],
  );
}

/** Takes a register in as it is, with what its columns probably are. Nothing is posted. */
export async function receiveSheet(
  work: Work,
  { client, plain }: ClientSetup,
  name: string,
  bytes: Buffer,
): Promise<number> {
  const order: DateOrder = work.packs.ofCountry(client.country)?.dateOrder ?? "dmy";
  const { columns, rows } = readSheet(await cellsIn(bytes), order, plain.digits);
  if (rows.length === 0 || !columns.some(({ kind }) => kind === "amount")) {
    throw new FiscalError(
      "register/no-amounts",
      "No column of amounts was found. Export the register as CSV or as a workbook, one row a document, with headings.",
      "file",
    );
  }
  return work.write(async (work) => {
    const mapping = (await mappingBefore(work, client.id, columns)) ?? guessed(columns);
    const id = await insertSheet(work, client.id, { name: name.slice(0, 200), columns, mapping }, rows);
    await work.record({
      action: "receive",
      entity: "statement",
      id,
      after: { register: name },
    });
    return id;
  });
}

async function cellsIn(bytes: Buffer): Promise<string[][]> {
  if (isWorkbook(bytes)) return firstSheetApart(bytes);
  refuseForeignFile(bytes);
  return Papa.parse<string[]>(decoded(bytes, encodingOf(bytes)), { skipEmptyLines: "greedy" }).data;
}

/** The same columns of the same client are read as the last time. */
async function mappingBefore(
  work: Work,
  clientId: number,
  columns: readonly SheetColumn[],
): Promise<SheetMapping | null> {
  const row = await work.row<{ mapping: string }>(
    "SELECT mapping FROM register_sheets WHERE client_id = $1 AND columns = $2 ORDER BY id DESC LIMIT 1",
    [clientId, JSON.stringify(columns)],
  );
  return row ? { ...(JSON.parse(row.mapping) as SheetMapping), told: "" } : null;
}

/** What columns probably are, by their names. */
function guessed(columns: readonly SheetColumn[]): SheetMapping {
  const find = (field: keyof typeof HEADERS, kind?: SheetColumn["kind"]) => {
    const at = columns.findIndex(
      (column) =>
        (kind === undefined || column.kind === kind) && HEADERS[field].test(column.name.toLowerCase()),
    );
    return at < 0 ? null : at;
  };
  const value = find("net", "amount") ?? find("gross", "amount");
  const first = columns.findIndex(({ kind }) => kind === "amount");
  const both = [value ?? first];
  const tax = find("tax", "amount");
  return {
    accounts: both,
    returns: both,
    tax: tax === both[0] ? null : tax,
    date: find("date", "date"),
    party: find("party", "text"),
    rate: find("rate"),
    told: "",
  };
}

/** @throws FiscalError when the client has no such register */
export async function sheetRecord(work: Work, clientId: number, id: number): Promise<SheetRecord> {
  const row = await work.row<{ id: number; name: string; columns: string; mapping: string }>(
    "SELECT id, name, columns, mapping FROM register_sheets WHERE id = $1 AND client_id = $2",
    [id, clientId],
  );
  if (!row) throw notFound("This register");
  return {
    ...row,
    columns: JSON.parse(row.columns) as SheetColumn[],
    mapping: JSON.parse(row.mapping) as SheetMapping,
  };
}

/** A register with both values it is read as, what only one of them has, and how it is split by tax and by month. */
export async function sheetView(work: Work, { client, plain }: ClientSetup, id: number): Promise<SheetView> {
  const { name, columns, mapping } = await sheetRecord(work, client.id, id);
  const amounts = columns.flatMap(({ kind }, at) => (kind === "amount" ? [at] : []));
  const sums = await work.one<Record<string, number>>(
    `SELECT count(*) AS rows, ${columns
      .map(
        (_, at) =>
          `sum(cells ->> ${at} IS NULL) AS b${at}${amounts.includes(at) ? `, ${AMOUNT_OF(at)} AS s${at}` : ""}`,
      )
      .join(", ")} FROM register_rows WHERE sheet_id = $1`,
    [id],
  );
  const { createdAt } = await work.one<{ createdAt: string }>(
    "SELECT created_at AS createdAt FROM register_sheets WHERE id = $1",
    [id],
  );
  const sumAt = (at: number) => sums[`s${at}`] ?? NOTHING;
  const total = (places: readonly number[]) => places.reduce((sum, at) => sum + sumAt(at), 0);
  const [accounts, returns] = [total(mapping.accounts), total(mapping.returns)];
  const told = mapping.told === "" ? null : parseAmount(mapping.told, plain.digits);
  const nameOf = (at: number) => columns[at]?.name ?? "";
  const only = (places: readonly number[], others: readonly number[], sign: 1 | -1) =>
    places
      .filter((at) => !others.includes(at))
      .map((at) => ({ at, name: nameOf(at), amount: sumAt(at) * sign || 0 }));
  const used = new Set([...mapping.accounts, ...mapping.returns, mapping.tax]);
  return {
    id,
    name,
    createdAt,
    rows: sums["rows"] ?? NOTHING,
    digits: plain.digits,
    columns: columns.map((column, at) => ({
      ...column,
      at,
      sum: column.kind === "amount" ? sumAt(at) : null,
      blanks: sums[`b${at}`] ?? NOTHING,
    })),
    mapping,
    accounts,
    returns,
    told,
    untold: told === null ? null : told - accounts,
    causes: [...only(mapping.returns, mapping.accounts, 1), ...only(mapping.accounts, mapping.returns, -1)],
    unused: amounts.filter((at) => !used.has(at)).map((at) => ({ at, name: nameOf(at), sum: sumAt(at) })),
    split: await splitOf(work, id, mapping),
    months: await monthsOf(work, client.id, id, mapping),
  };
}

/** A sum over no rows. */
const NOTHING = 0;

/** Rows by whether tax is there: with it, with nought, or blank as exports and what is outside the scope are. */
async function splitOf(
  work: Work,
  id: number,
  { accounts, returns, tax }: SheetMapping,
): Promise<SheetSplit[]> {
  if (tax === null) return [];
  const rows = await work.rows<SheetSplit>(
    `SELECT CASE WHEN cells ->> ${tax} IS NULL THEN 'blank' WHEN cells ->> ${tax} = 0 THEN 'nought' ELSE 'taxed' END AS id,
       count(*) AS rows, ${sumOf(accounts)} AS accounts, ${sumOf(returns)} AS returns, ${AMOUNT_OF(tax)} AS tax
     FROM register_rows WHERE sheet_id = $1 GROUP BY 1`,
    [id],
  );
  return (["taxed", "nought", "blank"] as const).flatMap((one) => rows.find((row) => row.id === one) ?? []);
}

/** By month, beside the income of that month where the client's books are kept here. */
async function monthsOf(
  work: Work,
  clientId: number,
  id: number,
  { accounts, returns, date }: SheetMapping,
): Promise<SheetView["months"]> {
  if (date === null) return [];
  const rows = await work.rows<Omit<SheetView["months"][number], "ledger">>(
    `SELECT coalesce(substr(cells ->> ${date}, 1, 7), '') AS month, ${sumOf(accounts)} AS accounts, ${sumOf(returns)} AS returns
     FROM register_rows WHERE sheet_id = $1 GROUP BY 1 ORDER BY 1`,
    [id],
  );
  const income = await work.rows<{ month: string; amount: number }>(
    `SELECT substr(p.date, 1, 7) AS month, -sum(p.amount) AS amount FROM accounts a
       CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id
     WHERE a.client_id = $1 AND a.type = 'income' AND substr(p.date, 1, 7) IN (SELECT value FROM json_each($2)) GROUP BY 1`,
    [clientId, JSON.stringify(rows.map(({ month }) => month))],
  );
  const ledger = new Map(income.map(({ month, amount }) => [month, amount]));
  return rows.map((row) => ({ ...row, ledger: ledger.get(row.month) ?? null }));
}
