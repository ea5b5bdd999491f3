import { at } from "@fiscalon/core/at";
import { isFar } from "@fiscalon/core/calendar/farDate";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { createHash } from "node:crypto";
import { FiscalError } from "@fiscalon/core/errors";
import type { AssignedFact } from "@fiscalon/core/facts/effect";
import type { RegisterDocument } from "@fiscalon/core/incoming/registerReading";
import type { ImportReport } from "@fiscalon/contract/imports";
import type { Work, Writing } from "../../base/work.ts";
import type { ImportRecord } from "../../db/models.ts";
import type { Progress } from "../../jobs/task.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { oneOf } from "../../db/kindSql.ts";
import { insertAttachment } from "../../books/papers.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { addSurroundings } from "../../books/documents/addSurroundings.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { decoded, keepFile, readKeptFile } from "../../base/files.ts";
import { incomingRows, incomingXml } from "./incoming.ts";
import type { Incoming } from "./incoming.ts";
import { addAccounts, addContacts, addItems, knownNames } from "./masterRecords.ts";
import { numberKey } from "@fiscalon/core/incoming/numberKey";
import { Parties } from "./parties.ts";
import { keepReading, keptReading, versionOf } from "./keptReading.ts";
import type { FreshDocument, Reading } from "./keptReading.ts";
import { readRows } from "../../base/readRows.ts";
import { rejectedCsv } from "./rejectedRows.ts";
import { importRecord, refusePosted } from "./service.ts";
import { effectAsTold } from "./toldTax.ts";

/** Documents posted between two looks at the cancel flag. */
const CHUNK = 1000;
const LISTED_PROBLEMS = 500;

/** The dry run: reads the whole file and says what posting it would do. Changes nothing but the report. */
export async function checkImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<ImportReport> {
  const version = await versionOf(work, importId);
  const setup = await loadSetup(work, clientId);
  const reading = await readImport(work, setup, importId, progress);
  if (reading.report.problemCount === 0) keepReading(version, reading);
  const { report, rejected } = reading;
  const rejectedHash = rejected === null ? null : keepFile(work.folder, Buffer.from(rejected));
  await work.write((work) =>
    work.models.imports.update(
      { report, rejectedHash, state: "checked" },
      { where: { id: importId }, ...work.options },
    ),
  );
  return report;
}

/** Posts the file: all documents that are not there yet, in one transaction, or none. */
export async function postImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<ImportReport> {
  return work.write(async (work) => {
    const before = await loadSetup(work, clientId);
    refusePosted(await importRecord(work, clientId, importId));
    const { report, fresh, incoming, parties } =
      keptReading(await versionOf(work, importId)) ?? (await readImport(work, before, importId, progress));
    if (report.problemCount > 0) {
      throw new FiscalError(
        "imports/problems",
        `${report.problemCount} ${report.problemCount === 1 ? "cell needs" : "cells need"} mending before anything is posted. Mend them, or leave those rows out.`,
      );
    }
    await addAccounts(work, clientId, incoming.accounts);
    const setup = incoming.accounts.length === 0 ? before : await loadSetup(work, clientId);
    report.made = {
      contacts: await addContacts(work, clientId, incoming.contacts),
      items: await addItems(work, clientId, incoming.items),
    };
    const contactOf = await parties.keep(
      work,
      clientId,
      fresh.map((one) => one.document),
    );
    const documents = fresh.map((one) => newDocument(one, importId, contactOf(one.document)));
    const ids = await postDocuments(work, setup, documents, (posted) =>
      progress.step(posted, fresh.length, "posting documents"),
    );
    await keepPapers(work, clientId, importId, ids);
    progress.step(fresh.length, fresh.length, "posting documents");
    await work.models.imports.update(
      { report, state: "posted", documents: report.fresh },
      { where: { id: importId }, ...work.options },
    );
    await work.record({
      action: "post",
      entity: "import",
      id: importId,
      after: { documents: fresh.length },
    });
    return report;
  });
}

/** An e-invoice is itself the paper of its document. */
async function keepPapers(
  work: Writing,
  clientId: number,
  importId: number,
  documents: readonly number[],
): Promise<void> {
  const { content, fileHash, fileName, bytes } = await importRecord(work, clientId, importId);
  if (content !== "e-invoice") return;
  const paper = { hash: fileHash, name: fileName, type: "application/xml", bytes };
  for (const document of documents) await insertAttachment(work, clientId, document, paper);
}

async function readImport(
  work: Work,
  setup: ClientSetup,
  importId: number,
  progress: Progress,
): Promise<Reading> {
  const record = await importRecord(work, setup.client.id, importId);
  refusePosted(record);
  progress.step(0, 0, "reading the file");
  const parties = await Parties.of(work, setup.client);
  const { data, incoming } = await readFile(record, work, setup, parties);
  progress.step(0, incoming.documents.length, "understanding the rows");
  await dropKnownMasters(work, setup, incoming);
  const { fresh, alreadyThere } = await sortOutKnown(work, setup, record, incoming);
  await surround(work, setup, fresh, parties);
  checkEffects(setup, incoming, fresh, progress);
  const report = reportOf(parties, incoming, fresh, alreadyThere, data);
  const rejected = rejectedCsv(data, record.shape.headerRow, incoming.problems);
  return { fresh, incoming, parties, report, rejected };
}

/** The file as cells and as what they hold; XML has no cells. */
async function readFile(
  record: ImportRecord,
  { folder, packs }: Work,
  setup: ClientSetup,
  parties: Parties,
): Promise<{ data: readonly string[][]; incoming: Incoming }> {
  const bytes = readKeptFile(folder, record.fileHash);
  if (record.content === "e-invoice" || record.content === "audit-file")
    return { data: [], incoming: incomingXml(decoded(bytes, record.encoding), record, setup) };
  const data = await readRows(bytes, record.encoding, record.shape.delimiter);
  return { data, incoming: incomingRows(data, record, setup, packs, parties) };
}

/** Contacts and items that are there already, by name, are left as they are. */
async function dropKnownMasters(work: Work, setup: ClientSetup, incoming: Incoming): Promise<void> {
  for (const list of ["contacts", "items"] as const) {
    if (incoming[list].length === 0) continue;
    const known = await knownNames(work, setup.client.id, list);
    const there = (one: { name: string }) => known.has(one.name.toLowerCase());
    const skipped = incoming[list].filter(there);
    if (list === "contacts") incoming.contacts = incoming.contacts.filter((one) => !there(one));
    else incoming.items = incoming.items.filter((one) => !there(one));
    if (skipped.length > 0) {
      incoming.notices.push({
        row: skipped[0]?.row ?? 1,
        column: null,
        field: null,
        value: "",
        message: `${skipped.length} of the names are there already; they are left as they are.`,
      });
    }
  }
}

/** Documents already imported are skipped by their fingerprint; numbers used by others are problems. */
async function sortOutKnown(work: Work, setup: ClientSetup, record: ImportRecord, content: Incoming) {
  const kinds = [...new Set(content.documents.map(({ input }) => input.kind))];
  const known = await work.rows<{
    key: string | null;
    kind: DocumentKind;
    number: string;
    party: string;
    partyNumber: string;
    date: string;
  }>(
    `SELECT d.source_key AS key, d.kind, d.number, coalesce(c.name, '') AS party,
       coalesce(c.tax_number, '') AS partyNumber, d.date FROM documents d
       LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE d.client_id = $1 AND d.state = 'posted' AND ${oneOf("d.kind", kinds)}`,
    [setup.client.id],
  );
  const keys = new Set(known.map((one) => one.key));
  const numbers = new Map(
    known.flatMap((one) =>
      numberKeys(record, one.kind, one.number, one).map((key) => [key, one.date] as const),
    ),
  );
  const fresh: FreshDocument[] = [];
  let alreadyThere = 0;
  for (const document of content.documents) {
    const key = fingerprint(document);
    const { kind, number } = document.input;
    const used = numberKeys(record, kind, number, document)
      .map((one) => numbers.get(one))
      .find((date) => date !== undefined);
    if (keys.has(key)) alreadyThere += 1;
    else if (isFar(document.input.date, work.today))
      content.problems.push({
        row: at(document.rows, 0),
        column: record.settings.mapping.date ?? null,
        field: "date",
        value: document.input.date,
        message: `${document.input.date} is far from today, ${work.today}. Correct the date, or leave the row out.`,
      });
    else if (used === undefined) fresh.push({ document, key });
    else {
      content.problems.push({
        row: at(document.rows, 0),
        column: record.settings.mapping.number ?? null,
        field: "number",
        value: document.input.number,
        message: `Number ${document.input.number} is already in the books, dated ${used}. Correct the number, or leave the row out.`,
      });
    }
  }
  return { fresh, alreadyThere };
}

/**
 * What makes a number the same one again: for papers of ours the number itself, for those of others the number of one
 * party, known by its name or by its tax number however the name is spelt.
 */
function numberKeys(
  record: ImportRecord,
  kind: DocumentKind,
  number: string,
  { party, partyNumber }: { party: string; partyNumber: string },
): string[] {
  const bare = `${kind} ${number.toLowerCase()}`;
  const theirs = kindOf(kind).uniqueBy === "party" || record.direction === "purchase";
  if (!theirs) return [bare];
  const taxNumber = numberKey(partyNumber);
  return [`${bare} ${party.toLowerCase()}`, ...(taxNumber === "" ? [] : [`${bare} #${taxNumber}`])];
}

function fingerprint({ input, party }: RegisterDocument): string {
  const lines = input.lines.map(({ amount, code, typedTax, text }) => [amount, code, typedTax, text]);
  const content = JSON.stringify([input.kind, input.number, input.date, party, lines]);
  return createHash("sha256").update(content).digest("base64url").slice(0, 32);
}

/** Puts on the documents what their computation reads: of our place, the other side, the document they correct. */
async function surround(
  work: Work,
  setup: ClientSetup,
  fresh: readonly FreshDocument[],
  parties: Parties,
): Promise<void> {
  const found = fresh.map(({ document }) => parties.find(document));
  const documents = fresh.map(({ document: { input } }, index): NewDocument => ({
    input,
    contact: found[index]?.contact ?? null,
    place: null,
    ...(input.corrects ? { corrects: input.corrects } : {}),
  }));
  await addSurroundings(work, setup, documents);
  fresh.forEach(({ document }, index) => {
    const party = found[index]?.party;
    if (party) document.input.party = party;
  });
}

/** What the computation itself refuses (no rate in force, an account without role) is a problem of the row. */
function checkEffects(
  setup: ClientSetup,
  content: Incoming,
  fresh: readonly FreshDocument[],
  progress: Progress,
): void {
  const withAccounts = { ...setup.effect, accounts: [...setup.effect.accounts, ...content.accounts] };
  fresh.forEach((one, index) => {
    const { document } = one;
    if (index % CHUNK === 0) progress.step(index, fresh.length, "working out tax");
    try {
      one.effect = effectAsTold(document, content.told.get(document), withAccounts);
    } catch (error) {
      if (!(error instanceof FiscalError)) throw error;
      content.problems.push({
        row: at(document.rows, 0),
        column: null,
        field: null,
        value: "",
        message: error.message,
      });
    }
  });
}

function reportOf(
  found: Parties,
  content: Incoming,
  fresh: readonly FreshDocument[],
  alreadyThere: number,
  data: readonly string[][],
): ImportReport {
  const parties = new Set(
    fresh.flatMap(({ document }) =>
      found.find(document)?.contact === null ? [document.party.toLowerCase()] : [],
    ),
  );
  const dates = content.documents.map((document) => document.input.date).sort();
  const codes = new Map<string, ImportReport["codes"][number]>();
  for (const { document, effect } of fresh) {
    const { sign } = kindOf(document.input.kind);
    for (const line of effect?.priced.lines ?? []) {
      const code = line.code?.code ?? "";
      const row = codes.get(code) ?? { code, lines: 0, net: 0, tax: 0 };
      codes.set(code, {
        code,
        lines: row.lines + 1,
        net: row.net + sign * line.net,
        tax: row.tax + sign * (line.gross - line.net),
      });
    }
  }
  const problems = [...content.problems].sort((a, b) => a.row - b.row);
  return {
    rows: content.rows,
    documents: content.documents.length,
    fresh: fresh.length + content.contacts.length + content.items.length,
    alreadyThere,
    creditNotes: content.documents.filter(({ input }) => kindOf(input.kind).sign < 0).length,
    newContacts: parties.size + content.contacts.length,
    newItems: content.items.length,
    newAccounts: content.accounts.length,
    late: countFacts(fresh, (fact) => fact.period?.late === true),
    unregistered: countFacts(
      fresh,
      (fact) => fact.registration === null && fact.treatment !== "out-of-scope",
    ),
    net: content.net,
    tax: content.tax,
    from: dates[0] ?? null,
    to: dates.at(-1) ?? null,
    problemCount: problems.length,
    problems: problems
      .slice(0, LISTED_PROBLEMS)
      .map((problem) => ({ ...problem, cells: data[problem.row - 1] ?? [] })),
    notices: content.notices.slice(0, LISTED_PROBLEMS),
    choices: content.choices,
    codes: [...codes.values()].sort((a, b) => b.lines - a.lines),
  };
}

/** How many documents have a fact of a kind. */
function countFacts(fresh: readonly FreshDocument[], of: (fact: AssignedFact) => boolean): number {
  return fresh.filter(({ effect }) => effect?.facts.some(of)).length;
}

function newDocument(
  { document, key, effect }: FreshDocument,
  importId: number,
  contact: number | null,
): NewDocument {
  return {
    input: document.input,
    contact,
    place: null,
    importId,
    sourceKey: key,
    sourceRows: document.rows,
    ...(effect ? { effect } : {}),
  };
}
