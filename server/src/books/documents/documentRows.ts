import { at } from "@fiscalon/core/at";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { Work, Writing } from "../../base/work.ts";
import { allDone } from "../../db/bulkInsert.ts";
import type { BulkInsert } from "../../db/bulkInsert.ts";
import type { BulkTable } from "../../db/database.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { NewDocument } from "./newDocument.ts";

const DOCUMENT_COLUMNS = [
  "id",
  "client_id",
  "kind",
  "number",
  "date",
  "tax_point",
  "due_date",
  "contact_id",
  "place_id",
  "prices",
  "currency",
  "rate",
  "rate_source",
  "rate_date",
  "foreign_gross",
  "paid_from",
  "opening",
  "credit_hold",
  "corrects",
  "note",
  "discount",
  "typed_tax",
  "typed_total",
  "net",
  "tax",
  "gross",
  "original_date",
  "ledger_date",
  "state",
  "supersedes",
  "import_id",
  "source_key",
  "created_at",
  "created_by",
];
const LINE_COLUMNS = [
  "id",
  "document_id",
  "no",
  "text",
  "amount",
  "quantity",
  "unit_price",
  "prices",
  "discount",
  "code",
  "code_reason",
  "account",
  "item",
  "supply",
  "typed_tax",
  "typed_total",
  "typed_reason",
  "attributes",
  "tax_class",
  "net",
  "gross",
  "source_row",
];
const ENTRY_COLUMNS = ["id", "client_id", "kind", "date", "document_id", "text", "created_at", "created_by"];
const POSTING_COLUMNS = [
  "id",
  "entry_id",
  "client_id",
  "account_id",
  "date",
  "amount",
  "line",
  "levy",
  "text",
];
const FACT_COLUMNS = [
  "id",
  "client_id",
  "registration_id",
  "document_id",
  "line",
  "levy",
  "code",
  "treatment",
  "rate",
  "rates",
  "direction",
  "charged",
  "credit",
  "net",
  "tax",
  "calculated",
  "recoverable",
  "base",
  "tax_point",
  "own_end",
  "period_end",
  "late",
  "held",
  "awaits",
  "tags",
  "use",
  "created_at",
];

/** The tables documents are written to, what others refer to first, with the columns that are written. */
export const DOCUMENT_ROWS = {
  documents: DOCUMENT_COLUMNS,
  entries: ENTRY_COLUMNS,
  lines: LINE_COLUMNS,
  facts: FACT_COLUMNS,
  postings: POSTING_COLUMNS,
} as const satisfies Partial<Record<BulkTable, readonly string[]>>;

/** Rows of documents, ready to be written, by their table. */
export type Rows = Record<keyof typeof DOCUMENT_ROWS, unknown[][]>;
export type NextIds = Record<"document" | "line" | "entry" | "posting" | "fact", number>;

export function noRows(): Rows {
  return { documents: [], lines: [], entries: [], postings: [], facts: [] };
}

/** The ids of rows that are written to a file of their own first. */
export function firstIds(): NextIds {
  return { document: 1, line: 1, entry: 1, posting: 1, fact: 1 };
}

/** The ids the next rows get: given out here, so that the order of writing does not matter. */
export async function nextIds(work: Writing): Promise<NextIds> {
  const after = async (table: BulkTable) => (await work.lastId(table)) + 1;
  return {
    document: await after("documents"),
    line: await after("lines"),
    entry: await after("entries"),
    posting: await after("postings"),
    fact: await after("facts"),
  };
}

/** What others refer to goes first. */
export async function insertAll(bulk: BulkInsert, rows: Rows): Promise<void> {
  await bulk.insert("documents", DOCUMENT_COLUMNS, rows.documents);
  await allDone([
    bulk.insert("entries", ENTRY_COLUMNS, rows.entries),
    bulk.insert("lines", LINE_COLUMNS, rows.lines),
    bulk.insert("facts", FACT_COLUMNS, rows.facts),
  ]);
  await bulk.insert("postings", POSTING_COLUMNS, rows.postings, ["account_id", "line", "levy"]);
}

export function documentRow(
  { input, ...rest }: NewDocument,
  effect: DocumentEffect,
  id: number,
  setup: ClientSetup,
  work: Work,
): unknown[] {
  const { net, tax, gross } = effect.priced;
  const currency = input.currency ?? setup.client.currency;
  const foreign = currency !== setup.client.currency;
  return [
    id,
    setup.client.id,
    input.kind,
    input.number,
    input.date,
    input.taxPoint ?? null,
    input.due ?? null,
    rest.contact,
    rest.place,
    input.prices,
    currency,
    foreign ? (input.exchange?.rate ?? null) : null,
    foreign ? (input.exchange?.source ?? null) : null,
    foreign ? (input.exchange?.date ?? null) : null,
    foreign ? effect.printed.gross : null,
    input.paidThrough ?? null,
    input.opening ? 1 : 0,
    input.creditHold ?? null,
    rest.corrects ?? null,
    rest.note ?? "",
    jsonOrNull(input.discount),
    jsonOrNull(input.typedTax),
    input.typedTotal || null,
    net,
    tax,
    gross,
    input.originalDate ?? null,
    effect.ledgerDate,
    "posted",
    rest.supersedes ?? null,
    rest.importId ?? null,
    rest.sourceKey ?? null,
    work.at,
    work.person,
  ];
}

export function lineRows(
  { input, sourceRows }: NewDocument,
  effect: DocumentEffect,
  document: number,
): unknown[][] {
  return input.lines.map((line, index) => {
    const priced = effect.priced.lines[index];
    return [
      document,
      index + 1,
      line.text ?? "",
      line.amount ?? null,
      line.quantity ?? null,
      line.unitPrice ?? null,
      line.prices ?? null,
      jsonOrNull(line.discount),
      priced?.code?.code ?? (line.code || null),
      priced?.reason ?? line.codeReason ?? null,
      line.account ?? null,
      line.item ?? null,
      line.supply ?? null,
      jsonOrNull(line.typedTax),
      line.typedTotal || null,
      line.typedReason ?? null,
      jsonOrNull(line.attributes),
      line.taxClass || null,
      priced?.net ?? 0,
      priced?.gross ?? 0,
      sourceRows?.[index] ?? null,
    ];
  });
}

export function takeEffect(
  rows: Rows,
  { input }: NewDocument,
  effect: DocumentEffect,
  id: number,
  next: NextIds,
  setup: ClientSetup,
  work: Work,
): void {
  const client = setup.client.id;
  const kind = DOCUMENT_KINDS[input.kind];
  const text = `${kind.name} ${input.number}`;
  const entry = next.entry++;
  rows.entries.push([entry, client, "document", effect.ledgerDate, id, text, work.at, work.person]);
  for (const { account, amount, line, levy, text: words } of effect.postings) {
    rows.postings.push([
      next.posting++,
      entry,
      client,
      setup.accountIds.get(account),
      effect.ledgerDate,
      amount,
      line,
      levy,
      words,
    ]);
  }
  for (const fact of effect.facts) {
    rows.facts.push([
      next.fact++,
      client,
      fact.registration,
      id,
      fact.line,
      fact.levy,
      fact.code,
      fact.treatment,
      fact.rate,
      fact.rates && JSON.stringify(fact.rates),
      fact.direction,
      fact.charged,
      fact.credit ? 1 : 0,
      fact.net,
      fact.tax,
      fact.calculated,
      fact.recoverable,
      fact.base,
      fact.taxPoint,
      fact.period?.own.to ?? null,
      fact.period?.reported.to ?? null,
      fact.period?.late ? 1 : 0,
      fact.held ? 1 : 0,
      fact.awaits,
      fact.tags,
      useOf(fact, input),
      work.at,
    ]);
  }
}

/** What a purchase is, goods or services, and the account it is for; sums by it are read from an index. */
function useOf(
  { direction, line }: DocumentEffect["facts"][number],
  { lines }: NewDocument["input"],
): string {
  if (direction === "sale") return "";
  const { supply, account } = at(lines, line - 1);
  return `${supply ?? ""} ${account ?? ""}`;
}

function jsonOrNull(value: object | undefined): string | null {
  return value === undefined ? null : JSON.stringify(value);
}
