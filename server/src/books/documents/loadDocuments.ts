import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import { hasPostings } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Bind } from "../../db/database.ts";
import type { Work } from "../../base/work.ts";
import type { NewDocument } from "./newDocument.ts";

/** A document as it is kept. `input` is what was typed, nothing worked out. */
export interface StoredDocument extends NewDocument {
  id: number;
  corrects: string | null;
  note: string;
  net: number;
  tax: number;
  gross: number;
  /** In the document's own currency, where that is another. */
  foreignGross: number | null;
  ledgerDate: string;
  state: "posted" | "superseded" | "void";
  superseded: number | null;
  importId: number | null;
  sourceKey: string | null;
  sourceRows: number[];
  /** Why it does not count any more. */
  endReason: string | null;
  createdAt: string;
  createdBy: number;
}

/** The ids of documents by any condition on their table (alias d), oldest first. */
export async function documentIds(work: Work, condition: string, bind: Bind): Promise<number[]> {
  const rows = await work.rows<{ id: number }>(
    `SELECT d.id FROM documents d WHERE ${condition} ORDER BY d.id`,
    bind,
  );
  return rows.map(({ id }) => id);
}

/** That no live fact of a document (alias d) is on a return that is sealed. */
export const ON_NO_SEALED_RETURN = `NOT EXISTS (SELECT 1 FROM facts s JOIN returns r ON r.registration_id = s.registration_id
  AND r.period_end = s.period_end AND r.state IN ('sealed', 'filed', 'settled') WHERE s.document_id = d.id AND s.live = 1)`;

interface DocumentRecord {
  id: number;
  kind: DocumentKind;
  number: string;
  date: string;
  tax_point: string | null;
  due_date: string | null;
  contact_id: number | null;
  place_id: number | null;
  prices: "exclusive" | "inclusive";
  currency: string;
  rate: string | null;
  rate_source: string | null;
  rate_date: string | null;
  foreign_gross: number | null;
  paid_from: string | null;
  opening: number;
  credit_hold: string | null;
  corrects: string | null;
  original_date: string | null;
  note: string;
  discount: string | null;
  typed_tax: string | null;
  typed_total: string | null;
  net: number;
  tax: number;
  gross: number;
  ledger_date: string;
  state: StoredDocument["state"];
  supersedes: number | null;
  import_id: number | null;
  source_key: string | null;
  end_reason: string | null;
  created_at: string;
  created_by: number;
}

interface LineRecord {
  document_id: number;
  text: string;
  amount: string | null;
  quantity: string | null;
  unit_price: string | null;
  prices: "exclusive" | "inclusive" | null;
  discount: string | null;
  code: string | null;
  code_reason: string | null;
  account: string | null;
  item: string | null;
  supply: "goods" | "services" | null;
  typed_tax: string | null;
  typed_total: string | null;
  typed_reason: string | null;
  attributes: string | null;
  tax_class: string | null;
  source_row: number | null;
}

/**
 * Documents with their lines, by any condition on the table of documents (alias d), oldest first.
 * @param condition SQL with bound parameters only
 */
export async function loadDocuments(work: Work, condition: string, bind: Bind): Promise<StoredDocument[]> {
  const documents = await work.rows<DocumentRecord>(
    `SELECT d.* FROM documents d WHERE ${condition} ORDER BY d.id`,
    bind,
  );
  const lines = await work.rows<LineRecord>(
    `SELECT l.* FROM documents d JOIN lines l ON l.document_id = d.id WHERE ${condition} ORDER BY d.id, l.no`,
    bind,
  );
  const byDocument = groupBy(lines, (line) => line.document_id);
  return documents.map((document) => stored(document, byDocument.get(document.id) ?? []));
}

function stored(d: DocumentRecord, lines: readonly LineRecord[]): StoredDocument {
  return {
    id: d.id,
    input: inputOf(d, lines),
    contact: d.contact_id,
    place: d.place_id,
    foreignGross: d.foreign_gross,
    corrects: d.corrects,
    note: d.note,
    net: d.net,
    tax: d.tax,
    gross: d.gross,
    ledgerDate: d.ledger_date,
    state: d.state,
    superseded: d.supersedes,
    importId: d.import_id,
    sourceKey: d.source_key,
    sourceRows: lines.map((line) => line.source_row ?? 0),
    endReason: d.end_reason,
    createdAt: d.created_at,
    createdBy: d.created_by,
  };
}

function inputOf(d: DocumentRecord, lines: readonly LineRecord[]): DocumentInput & { number: string } {
  return withoutNulls({
    kind: d.kind,
    number: d.number,
    date: d.date,
    taxPoint: d.tax_point,
    due: d.due_date,
    originalDate: d.original_date,
    prices: d.prices,
    currency: d.currency,
    paidThrough: d.paid_from,
    opening: d.opening === 1 ? true : null,
    creditHold: d.credit_hold,
    exchange:
      d.rate === null ? null : withoutNulls({ rate: d.rate, source: d.rate_source, date: d.rate_date }),
    discount: parsed(d.discount),
    typedTax: parsed(d.typed_tax),
    typedTotal: d.typed_total,
    lines: lines.map((line) => lineOf(line, d.kind)),
  });
}

/** A line of a supply without a code has none on purpose from now on; nothing is chosen for it behind its back. */
function lineOf(line: LineRecord, kind: DocumentKind): LineInput {
  const kept = withoutNulls<LineInput>({
    text: line.text === "" ? null : line.text,
    amount: line.amount,
    quantity: line.quantity,
    unitPrice: line.unit_price,
    prices: line.prices,
    discount: parsed(line.discount),
    code: line.code,
    codeReason: line.code_reason,
    account: line.account,
    item: line.item,
    supply: line.supply,
    typedTax: parsed(line.typed_tax),
    typedTotal: line.typed_total,
    typedReason: line.typed_reason,
    attributes: parsed(line.attributes),
    taxClass: line.tax_class,
  });
  return line.code === null && !hasPostings(kind) ? { ...kept, code: null } : kept;
}

function parsed(json: string | null): unknown {
  return json === null ? null : JSON.parse(json);
}

function withoutNulls<T>(record: Record<string, unknown>): T {
  return Object.fromEntries(Object.entries(record).filter(([, value]) => value !== null)) as T;
}
