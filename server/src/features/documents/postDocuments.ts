import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect } from "@fiscalon/core/facts/documentEffect";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { DocumentInput } from "@fiscalon/core/tax/documentInput";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { followEntries } from "../bank/followEntries.ts";
import { releaseFacts } from "../payments/releaseFacts.ts";
import { addParties } from "./addParties.ts";

/** A document ready to be posted. `sourceRows`: by line, the row of the imported file. */
export interface NewDocument {
  input: DocumentInput & { number: string };
  contact: number | null;
  place: number | null;
  corrects?: string | null | undefined;
  note?: string | undefined;
  supersedes?: number;
  importId?: number | null;
  sourceKey?: string | null;
  sourceRows?: readonly number[];
  /** Already worked out with the same set-up; otherwise it is worked out here. */
  effect?: DocumentEffect;
}

const DOCUMENT_COLUMNS = [
  "id",
  "client_id",
  "kind",
  "number",
  "date",
  "tax_point",
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
  "corrects",
  "note",
  "discount",
  "typed_tax",
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
  "typed_reason",
  "attributes",
  "tax_class",
  "net",
  "gross",
  "source_row",
];
const ENTRY_COLUMNS = ["id", "client_id", "kind", "date", "document_id", "text", "created_at", "created_by"];
const POSTING_COLUMNS = ["entry_id", "client_id", "account_id", "date", "amount", "line", "levy", "text"];
const FACT_COLUMNS = [
  "client_id",
  "registration_id",
  "document_id",
  "line",
  "levy",
  "code",
  "treatment",
  "rate",
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
  "tags",
  "created_at",
];

/**
 * Posts documents: the documents with their lines, one journal entry and the tax facts each. Set by set, so that
 * fifty thousand cost a handful of statements.
 * @returns the ids of the documents, in order
 * @throws FiscalError with the path `documents[n]…` of the first that cannot be computed; nothing is written then
 */
export async function postDocuments(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  documents: readonly NewDocument[],
): Promise<number[]> {
  await addParties(db, setup, documents, tx);
  const firstDocument = (await db.lastId("documents", tx)) + 1;
  const firstEntry = (await db.lastId("entries", tx)) + 1;
  const rows = { documents: [], lines: [], entries: [], postings: [], facts: [] } as Record<
    "documents" | "lines" | "entries" | "postings" | "facts",
    unknown[][]
  >;
  documents.forEach((document, index) => {
    const effect = effectOf(document, setup);
    const ids = { document: firstDocument + index, entry: firstEntry + index };
    rows.documents.push(documentRow(document, effect, ids.document, setup, actor));
    rows.lines.push(...lineRows(document, effect, ids.document));
    takeEffect(rows, document, effect, ids, setup, actor);
  });
  await db.insertRows("documents", DOCUMENT_COLUMNS, rows.documents, tx);
  await db.insertRows("lines", LINE_COLUMNS, rows.lines, tx);
  await insertEffects(db, tx, rows);
  return documents.map((_, index) => firstDocument + index);
}

/** Works out the effects of documents anew, superseding their entries and facts: after rates or registrations change. */
export async function recomputeDocuments(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  documents: readonly (NewDocument & { id: number })[],
): Promise<void> {
  await addParties(db, setup, documents, tx);
  const firstEntry = (await db.lastId("entries", tx)) + 1;
  const rows = { entries: [] as unknown[][], postings: [] as unknown[][], facts: [] as unknown[][] };
  const totals: object[] = [];
  documents.forEach((document, index) => {
    const effect = effectOf(document, setup);
    takeEffect(rows, document, effect, { document: document.id, entry: firstEntry + index }, setup, actor);
    const { net, tax, gross } = effect.priced;
    const foreign = effect.printed === effect.priced ? null : effect.printed.gross;
    totals.push({ id: document.id, net, tax, gross, foreign, on: effect.ledgerDate });
  });
  await db.run(
    `UPDATE documents SET net = t.value ->> 'net', tax = t.value ->> 'tax', gross = t.value ->> 'gross',
       foreign_gross = t.value ->> 'foreign', ledger_date = t.value ->> 'on'
     FROM json_each($1) t WHERE documents.id = t.value ->> 'id'`,
    [JSON.stringify(totals)],
    tx,
  );
  await endEffects(
    db,
    tx,
    documents.map((document) => document.id),
  );
  await insertEffects(db, tx, rows);
  await followEntries(db, tx, setup.client.id);
  await releaseFacts(
    db,
    tx,
    actor,
    setup,
    documents.map((document) => document.id),
  );
}

/** Entries and facts of documents stop counting; they stay on record. */
export async function endEffects(db: Database, tx: Tx, documentIds: readonly number[]): Promise<void> {
  const ids = [JSON.stringify(documentIds)];
  await db.run(`UPDATE facts SET live = 0 WHERE document_id IN (SELECT value FROM json_each($1))`, ids, tx);
  await db.run(
    `UPDATE postings SET live = 0 WHERE entry_id IN
       (SELECT id FROM entries WHERE document_id IN (SELECT value FROM json_each($1)))`,
    ids,
    tx,
  );
  await db.run(`UPDATE entries SET live = 0 WHERE document_id IN (SELECT value FROM json_each($1))`, ids, tx);
}

function effectOf(document: NewDocument, setup: ClientSetup): DocumentEffect {
  return document.effect ?? documentEffect(document.input, setup.effect);
}

async function insertEffects(
  db: Database,
  tx: Tx,
  rows: { entries: unknown[][]; postings: unknown[][]; facts: unknown[][] },
): Promise<void> {
  await db.insertRows("entries", ENTRY_COLUMNS, rows.entries, tx);
  await db.insertRows("postings", POSTING_COLUMNS, rows.postings, tx);
  await db.insertRows("facts", FACT_COLUMNS, rows.facts, tx);
}

function documentRow(
  { input, ...rest }: NewDocument,
  effect: DocumentEffect,
  id: number,
  setup: ClientSetup,
  actor: Actor,
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
    rest.corrects ?? null,
    rest.note ?? "",
    jsonOrNull(input.discount),
    jsonOrNull(input.typedTax),
    net,
    tax,
    gross,
    input.originalDate ?? null,
    effect.ledgerDate,
    "posted",
    rest.supersedes ?? null,
    rest.importId ?? null,
    rest.sourceKey ?? null,
    actor.at,
    actor.person,
  ];
}

function lineRows({ input, sourceRows }: NewDocument, effect: DocumentEffect, document: number): unknown[][] {
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
      priced?.codeReason ?? line.codeReason ?? null,
      line.account ?? null,
      line.item ?? null,
      line.supply ?? null,
      jsonOrNull(line.typedTax),
      line.typedReason ?? null,
      jsonOrNull(line.attributes),
      line.taxClass || null,
      priced?.net ?? 0,
      priced?.gross ?? 0,
      sourceRows?.[index] ?? null,
    ];
  });
}

function takeEffect(
  rows: { entries: unknown[][]; postings: unknown[][]; facts: unknown[][] },
  { input }: NewDocument,
  effect: DocumentEffect,
  ids: { document: number; entry: number },
  setup: ClientSetup,
  actor: Actor,
): void {
  const client = setup.client.id;
  const kind = DOCUMENT_KINDS[input.kind];
  const text = `${kind.name} ${input.number}`;
  rows.entries.push([
    ids.entry,
    client,
    "document",
    effect.ledgerDate,
    ids.document,
    text,
    actor.at,
    actor.person,
  ]);
  for (const { account, amount, line, levy, text: words } of effect.postings) {
    rows.postings.push([
      ids.entry,
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
      client,
      fact.registration,
      ids.document,
      fact.line,
      fact.levy,
      fact.code,
      fact.treatment,
      fact.rate,
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
      fact.tags,
      actor.at,
    ]);
  }
}

function jsonOrNull(value: object | undefined): string | null {
  return value === undefined ? null : JSON.stringify(value);
}
