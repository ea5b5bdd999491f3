import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { isFar } from "@fiscalon/core/calendar/farDate";
import { FiscalError } from "@fiscalon/core/errors";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentBody, VoidManyBody } from "@fiscalon/contract/document";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { refusePaid } from "../../books/payments/allocated.ts";
import { nextInSeries } from "../../books/series.ts";
import { changeable, postOne, replaceDocument, voidDocument } from "../../books/documents/replaceDocument.ts";
import { requireOwn } from "../../books/requireOwn.ts";
import { refuseBought } from "../../books/stock/boughtWith.ts";
import { withPieces } from "../../books/stock/sellPieces.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";

/** Posts one document typed by a person. */
export async function postDocument(work: Work, clientId: number, body: DocumentBody): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const document = await prepared(work, setup, body, null);
    return postOne(work, setup, document, body);
  });
}

/** Replaces a posted document by a corrected version; the old one stays on record. */
export async function correctDocument(
  work: Work,
  clientId: number,
  documentId: number,
  body: DocumentBody,
): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const old = await changeable(work, setup, documentId);
    const document = await prepared(work, setup, body, old);
    return replaceDocument(work, setup, old, document, body);
  });
}

/** Takes a document out of the books; it stays on record with the reason. */
export async function voidDocuments(
  work: Work,
  clientId: number,
  { documents, reason }: VoidManyBody,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const chosen: StoredDocument[] = [];
    for (const id of documents) chosen.push(await changeable(work, setup, id));
    await refusePaid(work, documents);
    await refuseBought(work, clientId, documents);
    for (const document of chosen) await voidDocument(work, setup, document, reason);
  });
}

async function prepared(
  work: Writing,
  setup: ClientSetup,
  body: DocumentBody,
  replaced: StoredDocument | null,
): Promise<NewDocument> {
  const { contact, place, corrects, note, duplicateReason, farReason, ...input } = body;
  await requireOwn(work, setup.client.id, "contacts", contact, "contact");
  await requireOwn(work, setup.client.id, "places", place, "place");
  const number =
    body.number || replaced?.input.number || (await nextInSeries(work, setup.client.id, body.kind));
  const lines = await withPieces(work, setup, body.kind, input.lines, replaced?.id ?? 0);
  const document: NewDocument = {
    input: { ...input, lines, number },
    contact: contact ?? null,
    place: place ?? null,
    corrects: corrects ?? null,
    note: note ?? "",
  };
  if (farReason === undefined) refuseFar(work, input);
  if (duplicateReason === undefined)
    await refuseDuplicate(work, setup.client.id, document, replaced?.id ?? 0);
  return document;
}

/** A date that is rather mistyped than meant is refused unless a reason confirms it. */
function refuseFar({ today, zone }: Work, { date, taxPoint }: Pick<DocumentBody, "date" | "taxPoint">): void {
  for (const [field, day] of Object.entries({ date, taxPoint }))
    if (typeof day === "string" && isFar(day, today))
      throw new FiscalError(
        "document/far-date",
        `${displayDate(day)} is far from today, ${displayDate(today)} (${zone}). Correct the date, or say why it is right.`,
        field,
      );
}

/** The same number of the same party (or of our own series) again is refused unless a reason confirms it. */
async function refuseDuplicate(
  work: Writing,
  clientId: number,
  document: NewDocument,
  except: number,
): Promise<void> {
  const { input, contact } = document;
  const ownSeries = DOCUMENT_KINDS[input.kind].direction !== "purchase";
  const twin = await work.row<{ id: number; date: string }>(
    `SELECT id, date FROM documents WHERE client_id = $1 AND kind = $2 AND number = $3 COLLATE NOCASE
       AND state = 'posted' AND id <> $4 AND ($5 OR contact_id IS $6) LIMIT 1`,
    [clientId, input.kind, input.number, except, ownSeries ? 1 : 0, contact],
  );
  if (!twin) return;
  throw new FiscalError(
    "document/duplicate-number",
    `Number ${input.number} is already in the books, dated ${displayDate(twin.date)}. Correct the number, or say why there are two.`,
    "number",
    { document: twin.id },
  );
}
