import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { RegisterDocument } from "@fiscalon/core/incoming/registerReading";
import type { Work } from "../../base/work.ts";
import { decoded, readKeptFile } from "../../base/files.ts";
import { WORKBOOK, readRows } from "../../base/readRows.ts";
import { rowsApart } from "../../base/workbook/apart.ts";
import { addSurroundings } from "../../books/documents/addSurroundings.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import type { ImportRecord } from "../../db/models.ts";
import { incomingRows, incomingXml } from "./incoming.ts";
import type { Incoming, IncomingFile } from "./incoming.ts";
import { sortOutKnown } from "./knownNumbers.ts";
import type { FreshDocument } from "./knownNumbers.ts";
import { knownNames } from "./masterRecords.ts";
import { Parties } from "./parties.ts";

/** A document that is not there yet, ready to be worked out; a contact that is not there has a number below zero. */
export interface ReadyDocument extends FreshDocument {
  ready: NewDocument;
}

/** What was read of a file so far. */
export interface ReadSoFar {
  documents: number;
  creditNotes: number;
  fresh: number;
  alreadyThere: number;
  /** The first and the last date; null before any document. */
  from: string | null;
  to: string | null;
}

/** What a file brings to the books as they are: it is read as far as its documents are taken. */
export interface Reading {
  incoming: Incoming;
  parties: Parties;
  /** How many rows it has, about. */
  rows: number;
  soFar: ReadSoFar;
  /** Documents that are not there yet, batch by batch; each is let go once the next batch is asked for. */
  fresh: () => AsyncGenerator<ReadyDocument[]>;
}

/** Reads a whole file beside the books: nothing is changed. */
export async function readImport(work: Work, setup: ClientSetup, record: ImportRecord): Promise<Reading> {
  const clientId = setup.client.id;
  const parties = await Parties.of(work, setup.client);
  const { file, rows } = await readFile(record, work, setup, parties);
  const incoming = file.found;
  await dropKnownMasters(work, clientId, incoming);
  const soFar: ReadSoFar = {
    documents: 0,
    creditNotes: 0,
    fresh: 0,
    alreadyThere: 0,
    from: null,
    to: null,
  };
  async function* fresh(): AsyncGenerator<ReadyDocument[]> {
    for (const documents of file.batches) {
      documents.forEach((document) => note(soFar, document));
      const known = await sortOutKnown(work, clientId, record, documents, incoming.problems);
      const ready = known.fresh.map((one) => ({ ...one, ready: newDocument(one, record.id, parties) }));
      await surround(work, setup, ready, parties);
      soFar.alreadyThere += known.alreadyThere;
      soFar.fresh += ready.length;
      yield ready;
    }
  }
  return { incoming, parties, rows, soFar, fresh };
}

function note(soFar: ReadSoFar, { input }: RegisterDocument): void {
  soFar.documents += 1;
  if (kindOf(input.kind).sign < 0) soFar.creditNotes += 1;
  if (soFar.from === null || input.date < soFar.from) soFar.from = input.date;
  if (soFar.to === null || input.date > soFar.to) soFar.to = input.date;
}

function newDocument({ document, key }: FreshDocument, importId: number, parties: Parties): NewDocument {
  const { input } = document;
  return {
    input,
    contact: parties.find(document)?.contact ?? null,
    place: null,
    importId,
    sourceKey: key,
    sourceRows: document.rows,
    ...(input.corrects ? { corrects: input.corrects } : {}),
  };
}

/** Puts on the documents what their computation reads: of our place, the other side, the document they correct. */
async function surround(
  work: Work,
  setup: ClientSetup,
  fresh: readonly ReadyDocument[],
  parties: Parties,
): Promise<void> {
  await addSurroundings(
    work,
    setup,
    fresh.map(({ ready }) => ready),
  );
  for (const { document, ready } of fresh) {
    const party = parties.find(document)?.party;
    if (party) document.input.party = party;
    ready.contact = parties.take(document);
  }
}

/** The file as what it holds, and how many rows it has about. */
async function readFile(
  record: ImportRecord,
  work: Work,
  setup: ClientSetup,
  parties: Parties,
): Promise<{ file: IncomingFile; rows: number }> {
  const bytes = readKeptFile(work.folder, record.fileHash);
  if (isXml(record)) {
    const file = incomingXml(decoded(bytes, record.encoding), record, setup);
    return { file, rows: file.rows ?? 0 };
  }
  const { rows, about } = await readRows(bytes, record.encoding, record.shape.delimiter);
  const file = incomingRows(rows, record, setup, work.packs, parties);
  return { file, rows: file.rows ?? about };
}

/** The cells of some rows of a file, by their number from 1; none where it is XML. */
export async function cellsOf(
  { folder }: Work,
  record: ImportRecord,
  wanted: ReadonlySet<number>,
): Promise<Map<number, readonly string[]>> {
  const cells = new Map<number, readonly string[]>();
  if (isXml(record) || wanted.size === 0) return cells;
  const bytes = readKeptFile(folder, record.fileHash);
  if (record.encoding === WORKBOOK) return rowsApart(bytes, wanted);
  const { rows } = await readRows(bytes, record.encoding, record.shape.delimiter);
  let row = 0;
  for (const raw of rows) {
    row += 1;
    if (wanted.has(row)) cells.set(row, raw);
  }
  return cells;
}

function isXml({ content }: ImportRecord): boolean {
  return content === "e-invoice" || content === "audit-file";
}

/** Contacts and items that are there already, by name, are left as they are. */
async function dropKnownMasters(work: Work, clientId: number, incoming: Incoming): Promise<void> {
  for (const list of ["contacts", "items"] as const) {
    if (incoming[list].length === 0) continue;
    const known = await knownNames(work, clientId, list);
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
