import { isDeepStrictEqual } from "node:util";
import { amountOfBox } from "@fiscalon/core/returns/amountOfBox";
import { inField } from "../../base/errors.ts";
import { requireRegion } from "../../books/requireRegion.ts";
import { registeredFrom } from "../../books/registeredFrom.ts";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { Packs } from "@fiscalon/core/model/packs";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { BookFile } from "@fiscalon/contract/book";
import type { Work, Writing } from "../../base/work.ts";
import type { Progress } from "../../base/progress.ts";
import { addRegistration } from "../../books/addRegistration.ts";
import { addPlace, createClient } from "../../books/createClient.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { addBank, addTerminals } from "./bookFeeds.ts";
import { addImports, addPapers, keepContents } from "./bookFiles.ts";
import { addCreditReleases } from "./bookCredit.ts";
import { addRegisterSheets } from "./bookRegisterSheets.ts";
import { addStatements } from "./bookStatements.ts";
import { addAgreements, keptOfBook } from "./bookAgreements.ts";
import { addCapitalItems } from "./bookCapital.ts";
import { addCollection } from "./bookCollection.ts";
import { addPieces } from "./bookPieces.ts";
import { addInstalments } from "./bookInstalments.ts";
import { addAcceptances, addExplanations, addLateAnswers } from "./bookReviews.ts";
import type { PlacedRows } from "./pointers.ts";
import { postAll } from "./bookDocuments.ts";
import type { Numbered, Refs } from "./bookDocuments.ts";
import { addExtras } from "./bookExtras.ts";
import { BookPayments } from "./bookPayments.ts";
import { lawBrought, lawNow, writeJurisdiction } from "../../books/ownPacks.ts";
import type { Practice } from "../../practice/practice.ts";
import { addAdjustment } from "../../books/returns/adjust.ts";
import { keepSent } from "../../books/returns/filings.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { freeze } from "../../books/returns/sealReturn.ts";
import { postSettlement } from "../../books/settlement/settleReturn.ts";
import { recordTaxPayment } from "../../books/settlement/taxPayments.ts";

/**
 * Creates a client from a book file, all or nothing. Errors carry the path of the offending field in the file.
 * @returns the number of the client
 */
export async function importBook(
  practice: Practice,
  work: Work,
  book: BookFile,
  progress: Progress,
  maker?: string,
): Promise<number> {
  const brought = (book.jurisdictions ?? []).map(
    ({ format: _f, version: _v, ...jurisdiction }) => jurisdiction,
  );
  const { law, fresh } = lawBrought(work.law, brought);
  const { client } = await practice.make(work, {
    name: book.client.name,
    ...(maker === undefined ? {} : { maker }),
    law,
    fill: (books, clientId) => fillFromBook(books, clientId, book, progress),
    note: async (work) => {
      const now = lawBrought(await lawNow(work), fresh);
      for (const jurisdiction of now.fresh) await writeJurisdiction(work, jurisdiction);
    },
  });
  return client;
}

async function fillFromBook(
  work: Writing,
  clientId: number,
  book: BookFile,
  progress: Progress,
): Promise<void> {
  const contents = keepContents(work.folder, book);
  await createFromBook(work, clientId, book);
  const refs = await createParties(work, clientId, book);
  const { placed } = refs;
  placed.imports = await addImports(work, clientId, book, contents);
  await addExtras(work, clientId, book, refs);
  const load = () => loadSetup(work, clientId);
  await adjustmentsOfBook(work, await load(), book);
  const documents = (book.documents ?? []).map((document, index) => ({ document, index }));
  await postAll(
    work,
    await load(),
    documents.filter((one) => !one.document.reportedIn),
    refs,
    progress,
  );
  await addCreditReleases(work, await load(), book, placed, (late) => late === undefined);
  const payments = new BookPayments(book.payments ?? [], refs.contacts, placed);
  await payments.post(work, await load(), "");
  await addCapitalItems(work, await load(), book);
  await addInstalments(work, await load(), book, placed);
  await sealedPeriods(work, clientId, book, documents, payments, refs, progress);
  const sealed = new Set((book.returns ?? []).map((one) => one.period));
  const later = documents.filter(({ document }) => document.reportedIn && !sealed.has(document.reportedIn));
  await postAll(work, await load(), later, refs, progress);
  await payments.post(work, await load(), null);
  await addCreditReleases(
    work,
    await load(),
    book,
    placed,
    (late) => late === undefined || !sealed.has(late),
  );
  await addLateAnswers(work, await load(), book, placed, (period) => !sealed.has(period));
  refuseLeftTaxPayments(book, placed);
  await addPieces(work, await load(), book, placed);
  await addCollection(work, await load(), book, refs.contacts);
  await addPapers(work, clientId, book, contents, placed);
  await addExplanations(work, clientId, book, placed);
  const setup = await load();
  await addBank(work, setup, book, placed);
  await addTerminals(work, setup, book, placed);
  await addAcceptances(work, setup, book, placed);
  await addAgreements(work, setup, book, placed);
  await addStatements(work, setup, book, refs.contacts);
  await addRegisterSheets(work, setup, book);
}

async function createFromBook(work: Writing, clientId: number, book: BookFile): Promise<void> {
  const pack = work.packs.ofCountry(book.client.country);
  const { name, country, currency, saleCode, purchaseCode } = book.client;
  return withinField("client", () =>
    createClient(
      work,
      clientId,
      { name, country, ...(currency === undefined ? {} : { currency }) },
      {
        accounts: merged(pack?.accounts ?? [], (book.accounts ?? []).map(fullAccount)),
        codes: merged(pack?.codes ?? [], book.codes ?? []),
        archived: book.archived ?? [],
        ...(book.rules ? { rules: numbered(book.rules) } : {}),
        schedules: differingSchedules(work.packs, book.schedules ?? {}),
        ...(saleCode === undefined ? {} : { saleCode }),
        ...(purchaseCode === undefined ? {} : { purchaseCode }),
      },
    ),
  );
}

/** Schedules that say what the law here says, corrections of the practice included, stay the law's and move with it. */
function differingSchedules({ all }: Packs, schedules: RateSchedules): RateSchedules {
  const known = Object.assign({}, ...all.map((pack) => pack.schedules)) as RateSchedules;
  return Object.fromEntries(
    Object.entries(schedules).filter(([id, rows]) => !isDeepStrictEqual(rows, known[id])),
  );
}

function fullAccount(account: NonNullable<BookFile["accounts"]>[number]) {
  const { code, name, type, role, levy, region, topic, usualCode } = account;
  return {
    code,
    name,
    type,
    role: role ?? null,
    levy: levy ?? null,
    ...(region === undefined ? {} : { region }),
    topic: topic ?? null,
    usualCode: usualCode || null,
  };
}

/** Rules with an id each: where the file names none, the place in the list. */
function numbered(rules: readonly SupplyRule[]): SupplyRule[] {
  return rules.map((rule, index) => ({ ...rule, id: rule.id ?? `rule-${index + 1}` }));
}

/** The pack's rows, those of the book in place of rows with the same code. */
function merged<T extends { code: string }>(base: readonly T[], own: readonly T[]): T[] {
  const byCode = new Map(own.map((row) => [row.code, row]));
  const kept = base.map((row) => byCode.get(row.code) ?? row);
  return [...kept, ...own.filter((row) => !base.some((one) => one.code === row.code))];
}

async function createParties(work: Writing, clientId: number, book: BookFile): Promise<Refs> {
  const placed: PlacedRows = { documents: [], payments: [], taxPayments: [], imports: [] };
  const refs: Refs = { contacts: new Map(), places: new Map(), placed };
  for (const [index, { id, ...place }] of (book.places ?? []).entries()) {
    const made = await inField(`places[${index}]`, () => addPlace(work, clientId, id, place));
    refs.places.set(id, made);
  }
  for (const [index, { id, ...registration }] of (book.registrations ?? []).entries()) {
    await inField(`registrations[${index}]`, () => addRegistration(work, clientId, id, registration));
  }
  refuseDoubles(book);
  const contacts = await work.models.contacts.bulkCreate(
    (book.contacts ?? []).map(({ id, ...contact }, index) => {
      const country = contact.country ?? book.client.country;
      withinField(`contacts[${index}]`, () => requireRegion(work, country, contact.region ?? null));
      return {
        clientId,
        ref: id,
        ...contact,
        registered: registeredFrom(work, book.client.country, contact),
        ...work.made,
      };
    }),
    work.options,
  );
  for (const contact of contacts) refs.contacts.set(contact.ref, contact.id);
  await work.models.items.bulkCreate(
    (book.items ?? []).map(({ id, ...item }) => ({ clientId, ref: id, ...item, ...work.made })),
    work.options,
  );
  return refs;
}

function refuseDoubles(book: BookFile): void {
  const keys = new Set<string>();
  for (const [index, { sourceKey }] of (book.documents ?? []).entries()) {
    if (sourceKey === undefined) continue;
    if (keys.has(sourceKey)) {
      const words = `The source key ${sourceKey} is used twice.`;
      throw new FiscalError("book/double-id", words, `documents[${index}].sourceKey`);
    }
    keys.add(sourceKey);
  }
  for (const list of ["contacts", "items"] as const) {
    const seen = new Set<string>();
    for (const [index, { id }] of (book[list] ?? []).entries()) {
      if (seen.has(id))
        throw new FiscalError("book/double-id", `The id ${id} is used twice.`, `${list}[${index}].id`);
      seen.add(id);
    }
  }
}

async function adjustmentsOfBook(work: Writing, setup: ClientSetup, book: BookFile): Promise<void> {
  for (const [index, { registration, period, ...adjustment }] of (book.adjustments ?? []).entries()) {
    const r = registrationOf(setup, registration, `adjustments[${index}].registration`);
    await inField(`adjustments[${index}]`, () => addAdjustment(work, setup, r, period, adjustment));
  }
}

function registrationOf(setup: ClientSetup, ref: string, field: string) {
  const r = setup.registrations.find((one) => one.ref === ref);
  if (r) return r;
  throw new FiscalError("book/unknown-id", `The file has no registration "${ref}".`, field);
}

/** Seals the file's sealed periods in order, and refuses figures that do not come out again. */
async function sealedPeriods(
  work: Writing,
  clientId: number,
  book: BookFile,
  documents: readonly Numbered[],
  payments: BookPayments,
  refs: Refs,
  progress: Progress,
): Promise<void> {
  const returns = (book.returns ?? []).map((one, index) => ({ ...one, index }));
  for (const bookReturn of returns.sort((a, b) => (a.period < b.period ? -1 : 1))) {
    const path = `returns[${bookReturn.index}]`;
    const setup = await loadSetup(work, clientId);
    const r = registrationOf(setup, bookReturn.registration, `${path}.registration`);
    await postAll(
      work,
      setup,
      documents.filter(({ document }) => document.reportedIn === bookReturn.period),
      refs,
      progress,
    );
    await payments.post(work, setup, bookReturn.period);
    await addCreditReleases(
      work,
      setup,
      book,
      refs.placed,
      (late) => late === undefined || late === bookReturn.period,
    );
    await addLateAnswers(work, setup, book, refs.placed, (period) => period === bookReturn.period);
    const agreements = bookReturn.agreements?.map((one) => keptOfBook(one, setup.plain.digits)) ?? null;
    await freeze(work.as({ at: bookReturn.sealedAt }), clientId, r, bookReturn.period, agreements);
    const record = await returnRecord(work, r.id, bookReturn.period);
    compareBoxes(record?.boxes ?? [], bookReturn.boxes, setup.plain.digits, path);
    if (record && bookReturn.sent) {
      const { number, at, body } = bookReturn.sent;
      const of = { clientId, registrationId: r.id, periodEnd: bookReturn.period };
      await keepSent(work.as({ at }), of, number, body);
    }
    if (!record || bookReturn.state === "sealed") continue;
    await work.models.returns.update(
      {
        state: "filed",
        filedAt: bookReturn.filedAt ?? bookReturn.sealedAt,
        filedBy: work.person,
        receipt: bookReturn.receipt ?? {},
      },
      { where: { id: record.id }, ...work.options },
    );
    if (bookReturn.state === "settled") {
      await postSettlement(work.as({ at: bookReturn.settledAt ?? bookReturn.sealedAt }), setup, r, record);
    }
    for (const [at, { registration, period, ...payment }] of (book.taxPayments ?? []).entries()) {
      if (payment.kind === "instalment") continue;
      if (registration === bookReturn.registration && period === bookReturn.period) {
        await inField(`taxPayments[${at}]`, () => recordTaxPayment(work, setup, r, period, payment));
        refs.placed.taxPayments[at] = await work.lastId("entries");
      }
    }
  }
}

function refuseLeftTaxPayments({ taxPayments = [] }: BookFile, placed: PlacedRows): void {
  const left = taxPayments.findIndex((_, index) => placed.taxPayments[index] === undefined);
  if (left < 0) return;
  throw new FiscalError(
    "book/payment-without-return",
    "No filed return of the file belongs to this payment. Correct the registration or the period.",
    `taxPayments[${left}].period`,
  );
}

/** The sealed return comes out again, box by box: those of the file, and no other. */
function compareBoxes(
  computed: readonly { box: string; amount: number }[],
  said: Readonly<Record<string, string>>,
  digits: number,
  path: string,
): void {
  for (const [box, amount] of Object.entries(said)) {
    const now = amountOfBox(computed, box);
    if (now === parseAmount(amount, digits)) continue;
    throw new FiscalError(
      "book/box-differs",
      `Box ${box} comes out as ${formatAmount(now, digits)} from the documents, but the file says ${amount}.`,
      `${path}.boxes.${box}`,
    );
  }
  const missing = computed.find(({ box, amount }) => amount !== 0 && said[box] === undefined);
  if (!missing) return;
  throw new FiscalError(
    "book/box-differs",
    `Box ${missing.box} comes out as ${formatAmount(missing.amount, digits)} from the documents, but the file does not have it.`,
    `${path}.boxes`,
  );
}
