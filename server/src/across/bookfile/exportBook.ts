import { FiscalError } from "@fiscalon/core/errors";
import { valueAt } from "@fiscalon/core/at";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { BookFile, BookReturn } from "@fiscalon/contract/book";
import { openFiling } from "../../books/returns/filings.ts";
import { fileOfJurisdiction } from "@fiscalon/contract/jurisdiction";
import type { BookDocument } from "@fiscalon/contract/document";
import type { Work } from "../../base/work.ts";
import type { ContactRecord, ItemRecord, PlaceRecord, ReturnRecord } from "../../db/models.ts";
import { loadSetup, registrationWithId } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { bankOfBook, terminalsOfBook } from "./bookFeeds.ts";
import { contentsOf, importsOfBook, papersByDocument } from "./bookFiles.ts";
import { registerSheetsOfBook } from "./bookRegisterSheets.ts";
import { statementsOfBook } from "./bookStatements.ts";
import { agreementsOfBook, keptForBook } from "./bookAgreements.ts";
import { capitalOfBook } from "./bookCapital.ts";
import { collectionOfBook } from "./bookCollection.ts";
import { piecesOfBook } from "./bookPieces.ts";
import { instalmentsOfBook } from "./bookInstalments.ts";
import { acceptancesOfBook, explanationsOfBook, lateAnswersOfBook } from "./bookReviews.ts";
import { rowNumbers } from "./pointers.ts";
import type { RowsOf } from "./pointers.ts";
import { extrasOfBook } from "./bookExtras.ts";
import { paymentsOfBook } from "./bookPayments.ts";
import { recordedRates } from "../../books/documents/recordedRates.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";

/**
 * A client's complete set-up and books at one moment as a book file. Importing it gives the same books again.
 * @param papers whether papers and imported files go with it
 * @throws FiscalError `book/too-many-documents`, `book/too-large`
 */
export function exportBook(work: Work, clientId: number, what: { papers: boolean }): Promise<BookFile> {
  return work.atOneMoment((work) => bookAt(work, clientId, what));
}

/** What a book file may hold; longer ones no program takes in one piece. */
const MOST_DOCUMENTS = 100_000;

/** Documents `d` of client $1 that are in its book: those that count, and those taken out one by one. */
const IN_BOOK = "d.client_id = $1 AND (d.state = 'posted' OR (d.state = 'void' AND d.import_id IS NULL))";

async function refuseTooLong(work: Work, clientId: number): Promise<void> {
  const { count } = await work.one<{ count: number }>(
    `SELECT count(*) AS count FROM documents d WHERE ${IN_BOOK}`,
    [clientId],
  );
  if (count > MOST_DOCUMENTS)
    throw new FiscalError(
      "book/too-many-documents",
      `These books have ${count} documents, and a book file holds up to ${MOST_DOCUMENTS}. Take a copy under Copies, or the books as CSV.`,
    );
}

async function bookAt(work: Work, clientId: number, { papers }: { papers: boolean }): Promise<BookFile> {
  await refuseTooLong(work, clientId);
  const setup = await loadSetup(work, clientId);
  const { client, plain } = setup;
  const places = await plainRows<PlaceRecord>(work, "places", clientId);
  const contacts = await plainRows<ContactRecord>(work, "contacts", clientId);
  const items = await plainRows<ItemRecord>(work, "items", clientId);
  const codes = await work.models.codes.findAll({
    where: { clientId },
    order: ["position"],
    ...work.options,
  });
  const imported = papers ? await importsOfBook(work, clientId) : { ids: [], imports: [] };
  const imports = rowNumbers(imported.ids);
  const { ids, documents } = await documentsOf(
    work,
    setup,
    refsOf(contacts),
    refsOf(places),
    imports,
    papers,
  );
  const paid = await paymentsOfBook(work, setup, refsOf(contacts), rowNumbers(ids), documents);
  const { taxEntries, ...returns } = await returnsOf(work, setup);
  const rowsOf: RowsOf = {
    documents: rowNumbers(ids),
    payments: rowNumbers(paid.ids),
    taxPayments: rowNumbers(taxEntries),
    imports,
  };
  const hashes = [
    ...imported.imports.map(({ file }) => file),
    ...documents.flatMap((document) => (document.papers ?? []).map(({ file }) => file)),
  ];
  return {
    format: "fiscalon-book",
    version: 1,
    client: {
      name: client.name,
      country: client.country,
      currency: client.currency,
      saleCode: client.saleCode,
      purchaseCode: client.purchaseCode,
    },
    ...jurisdictionsOf(work, setup),
    places: places.map(({ ref, name, country, region, closedOn, saleCode, purchaseCode }) => ({
      id: ref,
      name,
      country,
      region,
      ...(closedOn === null ? {} : { closedOn }),
      ...(saleCode === null ? {} : { saleCode }),
      ...(purchaseCode === null ? {} : { purchaseCode }),
    })),
    registrations: setup.registrations.map((r) => ({
      id: r.ref,
      pack: r.pack,
      levies: r.levies,
      ...(r.region === null ? {} : { region: r.region }),
      number: r.number,
      from: r.validFrom,
      to: r.validTo,
      frequency: r.frequency,
      anchor: r.anchor,
      ...(r.changes.length === 0 ? {} : { changes: r.changes }),
      basis: r.basis,
      rounding: r.rounding,
      ...(Object.keys(r.options).length === 0 ? {} : { options: r.options }),
      ...(Object.keys(r.opening).length === 0 ? {} : { opening: r.opening }),
      ...(r.schemes.length === 0 ? {} : { schemes: r.schemes }),
    })),
    codes: codes.map((code) => code.definition),
    ...(plain.archived.length === 0 ? {} : { archived: [...plain.archived] }),
    rules: [...plain.rules],
    ...(await ownSchedules(work, setup)),
    accounts: [...plain.accounts],
    contacts: contacts.map((c) => ({
      id: c.ref,
      name: c.name,
      country: c.country,
      region: c.region,
      taxNumber: c.taxNumber,
      registered: c.registered,
      saleCode: c.saleCode,
      purchaseCode: c.purchaseCode,
      ...(c.standing === null ? {} : { standing: c.standing }),
    })),
    items: items.map(
      ({ id: _id, clientId: _client, createdAt: _at, createdBy: _by, ref, statisticalCode, ...item }) => ({
        id: ref,
        ...item,
        ...(statisticalCode === null ? {} : { statisticalCode }),
      }),
    ),
    documents,
    payments: paid.payments,
    ...(await extrasOfBook(work, clientId, refsOf(contacts), refsOf(places))),
    adjustments: await adjustmentsOf(work, setup),
    ...returns,
    ...(await instalmentsOfBook(work, setup)),
    ...(await piecesOfBook(work, setup, rowsOf)),
    ...(await capitalOfBook(work, setup)),
    ...(await collectionOfBook(work, setup, refsOf(contacts))),
    acceptances: await acceptancesOfBook(work, setup, rowsOf),
    ...(await agreementsOfBook(work, setup, rowsOf)),
    ...(await statementsOfBook(work, setup, refsOf(contacts))),
    ...(await registerSheetsOfBook(work, setup)),
    lateAnswers: await lateAnswersOfBook(work, setup, rowsOf),
    imports: imported.imports,
    bank: await bankOfBook(work, setup, rowsOf),
    terminals: await terminalsOfBook(work, setup, rowsOf),
    files: contentsOf(work.folder, hashes),
  };
}

/** Own jurisdictions its registrations are in; shipped ones are everywhere. */
function jurisdictionsOf(work: Work, { registrations }: ClientSetup): Pick<BookFile, "jurisdictions"> {
  const madeHere = work.law.jurisdictions.filter(({ id }) => registrations.some(({ pack }) => pack === id));
  if (madeHere.length === 0) return {};
  return { jurisdictions: madeHere.map(fileOfJurisdiction) };
}

/**
 * Schedules of the client's own, and those the practice corrected: elsewhere the books come to the same figures. The
 * others come with the packs.
 */
async function ownSchedules(
  work: Work,
  { client, plain }: ClientSetup,
): Promise<Pick<BookFile, "schedules">> {
  const own = await work.models.schedules.findAll({
    where: { clientId: client.id },
    order: ["id"],
    ...work.options,
  });
  const corrected = work.law.changes.flatMap((change) => (change.kind === "rate" ? [change.schedule] : []));
  const kept = new Set([...own.map(({ ref }) => ref), ...corrected]);
  const rows = Object.entries(plain.schedules).filter(([id]) => kept.has(id));
  return rows.length === 0 ? {} : { schedules: Object.fromEntries(rows) };
}

async function plainRows<T>(
  work: Work,
  table: "places" | "contacts" | "items",
  clientId: number,
): Promise<T[]> {
  const model = work.models[table] as typeof work.models.places;
  const rows = await model.findAll({ where: { clientId }, order: ["id"], ...work.options });
  return rows.map((row) => row.get({ plain: true }) as unknown as T);
}

function refsOf(rows: readonly { id: number; ref: string }[]): Map<number, string> {
  return new Map(rows.map((row) => [row.id, row.ref]));
}

/** Documents that count and those taken out, in an order that survives the way back in: late items after the others, by period. */
async function documentsOf(
  work: Work,
  setup: ClientSetup,
  contacts: ReadonlyMap<number, string>,
  places: ReadonlyMap<number, string>,
  imports: ReadonlyMap<number, number>,
  papers: boolean,
): Promise<{ ids: number[]; documents: BookDocument[] }> {
  const late = await work.rows<{ document: number; end: string }>(
    `SELECT DISTINCT f.document_id AS document, coalesce(a.period_end, f.period_end) AS end FROM facts f
       LEFT JOIN late_answers a ON a.registration_id = f.registration_id AND a.document_id = f.document_id AND a.separately = 1
     WHERE f.client_id = $1 AND f.live = 1 AND f.late = 1 AND f.release_of IS NULL`,
    [setup.client.id],
  );
  const reportedIn = new Map(late.map((row) => [row.document, row.end]));
  const released = await work.rows<{ document: number; on: string; evidence: string; late: string | null }>(
    `SELECT c.document_id AS document, c.released_on AS "on", c.evidence,
       (SELECT max(f.period_end) FROM facts f JOIN facts h ON h.id = f.release_of AND h.awaits IS NOT NULL
         WHERE f.document_id = c.document_id AND f.live = 1 AND f.late = 1) AS late
     FROM credit_releases c WHERE c.client_id = $1`,
    [setup.client.id],
  );
  const releaseOf = new Map(released.map((row) => [row.document, row]));
  const beside = papers ? await papersByDocument(work, setup.client.id) : new Map<number, never>();
  const explanations = await explanationsOfBook(work, setup.client.id);
  const stored = await loadDocuments(work, IN_BOOK, [setup.client.id]);
  const ids = stored.map(({ id }) => id);
  const rates = await recordedRates(work, setup, ids);
  const periodOf = (id: number) => reportedIn.get(id) ?? "";
  stored.sort((a, b) =>
    periodOf(a.id) < periodOf(b.id) ? -1 : periodOf(a.id) > periodOf(b.id) ? 1 : a.id - b.id,
  );
  const documents = stored.map((d): BookDocument => ({
    ...d.input,
    ...(rates.has(d.id) ? { recordedRates: rates.get(d.id) } : {}),
    ...(d.contact === null ? {} : { contact: valueAt(contacts, d.contact) }),
    ...(d.place === null ? {} : { place: valueAt(places, d.place) }),
    ...(d.corrects === null ? {} : { corrects: d.corrects }),
    ...(d.note === "" ? {} : { note: d.note }),
    ...(reportedIn.has(d.id) ? { reportedIn: periodOf(d.id) } : {}),
    ...releasedAs(d.state === "posted" ? releaseOf.get(d.id) : undefined),
    ...(d.state === "void" ? { void: d.endReason ?? "" } : {}),
    ...(d.sourceKey === null || d.state === "void" ? {} : { sourceKey: d.sourceKey }),
    ...originOf(d, imports),
    ...(beside.has(d.id) && d.state === "posted" ? { papers: valueAt(beside, d.id) } : {}),
    ...(explanations.has(d.id) ? { explanation: valueAt(explanations, d.id) } : {}),
  }));
  return { ids, documents };
}

/** The import a document came with, and the row of its file each line was. */
function originOf(
  { importId, sourceRows }: StoredDocument,
  imports: ReadonlyMap<number, number>,
): Pick<BookDocument, "origin"> {
  const row = importId === null ? undefined : imports.get(importId);
  return row === undefined ? {} : { origin: { import: `/imports/${row}`, rows: sourceRows } };
}

async function adjustmentsOf(
  work: Work,
  { client, registrations, plain }: ClientSetup,
): Promise<NonNullable<BookFile["adjustments"]>> {
  const rows = await work.models.adjustments.findAll({
    where: { clientId: client.id },
    order: ["id"],
    ...work.options,
  });
  return rows.map((row) => ({
    registration: registrationWithId(registrations, row.registrationId).ref,
    period: row.periodEnd,
    box: row.box,
    amount: formatAmount(row.amount, plain.digits),
    reason: row.reason,
  }));
}

async function returnsOf(
  work: Work,
  { client, registrations, plain }: ClientSetup,
): Promise<Pick<BookFile, "returns" | "taxPayments"> & { taxEntries: number[] }> {
  const refOf = (id: number) => registrationWithId(registrations, id).ref;
  const rows = await work.models.returns.findAll({
    where: { clientId: client.id },
    order: ["registrationId", "periodEnd"],
    ...work.options,
  });
  const sealed = rows
    .map((row) => row.get({ plain: true }) as ReturnRecord)
    .filter((row) => row.sealedAt !== null);
  const payments = await work.rows<{
    registration_id: number;
    period_end: string;
    date: string;
    kind: "payment";
    amount: number;
    reference: string;
    entry_id: number;
  }>("SELECT * FROM tax_payments WHERE client_id = $1 ORDER BY registration_id, period_end, id", [client.id]);
  const sent = new Map<number, BookReturn["sent"]>();
  for (const { id, registrationId, periodEnd } of sealed) {
    const open = await openFiling(work, registrationId, periodEnd);
    if (open) sent.set(id, { number: open.number, at: open.at, body: open.body });
  }
  return {
    taxEntries: payments.map((payment) => payment.entry_id),
    returns: sealed.map((row) => ({
      registration: refOf(row.registrationId),
      period: row.periodEnd,
      state: row.state as "sealed" | "filed" | "settled",
      boxes: Object.fromEntries(
        (row.boxes ?? []).map((box) => [box.box, formatAmount(box.amount, plain.digits)]),
      ),
      sealedAt: row.sealedAt ?? "",
      ...(sent.has(row.id) ? { sent: sent.get(row.id) } : {}),
      ...(row.filedAt === null ? {} : { filedAt: row.filedAt, receipt: row.receipt ?? {} }),
      ...(row.settledAt === null ? {} : { settledAt: row.settledAt }),
      ...(row.agreements === null
        ? {}
        : { agreements: row.agreements.map((one) => keptForBook(one, plain.digits)) }),
    })),
    taxPayments: payments.map((p) => ({
      registration: refOf(p.registration_id),
      period: p.period_end,
      date: p.date,
      kind: p.kind,
      amount: formatAmount(p.amount, plain.digits),
      ...(p.reference === "" ? {} : { reference: p.reference }),
    })),
  };
}

function releasedAs(
  release: { on: string; evidence: string; late: string | null } | undefined,
): Pick<BookDocument, "creditReleased"> {
  if (!release) return {};
  const { on, evidence, late } = release;
  return { creditReleased: { on, evidence, ...(late === null ? {} : { reportedIn: late }) } };
}
