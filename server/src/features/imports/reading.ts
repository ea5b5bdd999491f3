import type { Work } from "../../base/work.ts";
import { decoded, readKeptFile } from "../../base/files.ts";
import { readRows } from "../../base/readRows.ts";
import { addSurroundings } from "../../books/documents/addSurroundings.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import type { ImportRecord } from "../../db/models.ts";
import type { Progress } from "../../jobs/task.ts";
import { incomingRows, incomingXml } from "./incoming.ts";
import type { Incoming } from "./incoming.ts";
import { sortOutKnown } from "./knownNumbers.ts";
import type { FreshDocument } from "./knownNumbers.ts";
import { knownNames } from "./masterRecords.ts";
import { Parties } from "./parties.ts";

/** What a file brings to the books as they are. */
export interface Reading {
  /** Its cells, row by row; none where it is XML. */
  data: readonly string[][];
  incoming: Incoming;
  /** Documents that are not there yet, ready to be worked out; contacts that are not there have numbers below zero. */
  fresh: (FreshDocument & { ready: NewDocument })[];
  alreadyThere: number;
  parties: Parties;
}

/** Reads a whole file beside the books: nothing is changed. */
export async function readImport(
  work: Work,
  setup: ClientSetup,
  record: ImportRecord,
  progress: Progress,
): Promise<Reading> {
  const clientId = setup.client.id;
  progress.step(0, 0, "reading the file");
  const parties = await Parties.of(work, setup.client);
  const { data, incoming } = await readFile(record, work, setup, parties);
  progress.step(0, incoming.documents.length, "understanding the rows");
  await dropKnownMasters(work, clientId, incoming);
  const { fresh, alreadyThere } = await sortOutKnown(work, clientId, record, incoming);
  const ready = fresh.map((one) => ({ ...one, ready: newDocument(one, record.id, parties) }));
  await surround(work, setup, ready, parties);
  return { data, incoming, fresh: ready, alreadyThere, parties };
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
  fresh: Reading["fresh"],
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
