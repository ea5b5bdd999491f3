import { isOpenItem } from "@fiscalon/core/model/documentKinds";
import type { DocumentView } from "@fiscalon/contract/views";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { contactView } from "../../books/contactViews.ts";
import { lockOf } from "../../books/documents/endDocument.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { recordedRates } from "../../books/documents/recordedRates.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { paymentsOfDocument } from "../../books/payments/queries.ts";

/** One document with where it came from and what happened to it. */
export async function documentView(work: Work, clientId: number, documentId: number): Promise<DocumentView> {
  const [document] = await loadDocuments(work, "d.id = $1 AND d.client_id = $2", [documentId, clientId]);
  if (!document) throw notFound("This document");
  const setup = await loadSetup(work, clientId);
  const contact = document.contact === null ? null : await contactView(work, document.contact);
  const source =
    document.importId === null
      ? undefined
      : await work.row<{ file_name: string }>("SELECT file_name FROM imports WHERE id = $1", [
          document.importId,
        ]);
  const locked = document.state === "posted" ? await lockOf(work, setup, document) : null;
  return {
    id: document.id,
    state: document.state,
    input: { ...document.input, note: document.note, corrects: document.corrects },
    contact,
    place: document.place,
    net: document.net,
    tax: document.tax,
    gross: document.gross,
    foreignGross: document.foreignGross,
    ledgerDate: document.ledgerDate,
    ...(await settlementOf(work, document)),
    locked,
    recordedRates: (await recordedRates(work, setup, [document.id])).get(document.id) ?? [],
    source:
      source === undefined || document.importId === null
        ? null
        : { importId: document.importId, fileName: source.file_name, row: document.sourceRows[0] ?? null },
    history: await historyOf(work, documentId),
  };
}

/** What is open of a document, and the payments that settled the rest. */
async function settlementOf(
  work: Work,
  { id, input, gross, foreignGross }: StoredDocument,
): Promise<Pick<DocumentView, "open" | "settledBy">> {
  if (!isOpenItem(input.kind)) return { open: null, settledBy: [] };
  const settledBy = await paymentsOfDocument(work, id);
  return {
    open: settledBy.reduce((open, one) => open - one.amount - one.difference, foreignGross ?? gross),
    settledBy,
  };
}

/** Every version of the document, oldest first: who made it, and how it ended. */
async function historyOf(work: Work, documentId: number): Promise<DocumentView["history"]> {
  return work.rows(
    `WITH RECURSIVE versions(id) AS (
       SELECT $1 UNION SELECT d.id FROM documents d JOIN versions v ON d.supersedes = v.id
       UNION SELECT d.supersedes FROM documents d JOIN versions v ON d.id = v.id WHERE d.supersedes IS NOT NULL)
     SELECT d.created_at AS at, p.name AS "by", d.id AS documentId,
       CASE WHEN d.supersedes IS NOT NULL THEN 'corrected' WHEN d.import_id IS NOT NULL THEN 'imported' ELSE 'posted' END AS what
     FROM versions v JOIN documents d ON d.id = v.id JOIN people p ON p.id = d.created_by
     UNION ALL
     SELECT d.ended_at, p.name, d.id, 'taken out: ' || d.end_reason FROM versions v JOIN documents d ON d.id = v.id
       JOIN people p ON p.id = d.ended_by WHERE d.state = 'void' ORDER BY at`,
    [documentId],
  );
}
