import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { DocumentBody } from "@fiscalon/contract/document";
import { notFound } from "../../base/errors.ts";
import type { Writing } from "../../base/work.ts";
import { moveRelease } from "../credit/releaseCredit.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { moveAttachments } from "../papers.ts";
import { moveAllocations } from "../payments/allocated.ts";
import { movePieces } from "../stock/boughtWith.ts";
import { endDocument, lockOf } from "./endDocument.ts";
import { loadDocuments } from "./loadDocuments.ts";
import type { StoredDocument } from "./loadDocuments.ts";
import type { NewDocument } from "./newDocument.ts";
import { postDocuments } from "./postDocuments.ts";

/** Why what looks mistyped is right. */
type Confirmed = Pick<DocumentBody, "duplicateReason" | "farReason">;

/** Posts one document, with its entry in the audit trail. */
export async function postOne(
  work: Writing,
  setup: ClientSetup,
  document: NewDocument,
  { duplicateReason, farReason }: Confirmed = {},
): Promise<number> {
  const [id = 0] = await postDocuments(work, setup, [document]);
  await work.record({
    action: document.supersedes === undefined ? "post" : "correct",
    entity: "document",
    id,
    before: document.supersedes === undefined ? undefined : { document: document.supersedes },
    after: {
      ...document.input,
      ...(duplicateReason === undefined ? {} : { duplicateReason }),
      ...(farReason === undefined ? {} : { farReason }),
    },
  });
  return id;
}

/** Puts a corrected version in the place of a posted document; the old one stays on record, what hangs on it moves along. */
export async function replaceDocument(
  work: Writing,
  setup: ClientSetup,
  old: StoredDocument,
  document: NewDocument,
  confirmed: Confirmed = {},
): Promise<number> {
  await endDocument(work, setup, old, "superseded", "corrected");
  const corrected = { ...document, supersedes: old.id, sourceKey: old.sourceKey };
  const id = await postOne(work, setup, corrected, confirmed);
  await moveAllocations(work, setup, old, id);
  await moveAttachments(work, old.id, id);
  await moveRelease(work, setup, old.id, id);
  await movePieces(work, setup.client.id, old.id, id);
  return id;
}

/** A document stops counting, with the reason on record. */
export async function voidDocument(
  work: Writing,
  setup: ClientSetup,
  document: StoredDocument,
  reason: string,
): Promise<void> {
  await endDocument(work, setup, document, "void", reason);
  await work.record({
    action: "void",
    entity: "document",
    id: document.id,
    before: document.input,
    after: { reason },
  });
}

/** A document that may still be changed: posted, and in no sealed period. */
export async function changeable(
  work: Writing,
  setup: ClientSetup,
  documentId: number,
): Promise<StoredDocument> {
  const [document] = await loadDocuments(work, "d.id = $1 AND d.client_id = $2", [
    documentId,
    setup.client.id,
  ]);
  if (!document) throw notFound("This document");
  if (document.state !== "posted") {
    throw new FiscalError(
      "document/wrong-state",
      `This version of ${nameOf(document)} was already replaced or taken out. Open the current one.`,
    );
  }
  const lock = await lockOf(work, setup, document);
  if (lock) {
    throw new FiscalError(
      "document/sealed",
      `${nameOf(document)} is on the return to ${displayDate(lock.period)}, which is ${lock.state}. Enter a credit note or a new document instead; it is taken up as a late item.`,
    );
  }
  return document;
}

function nameOf({ input }: StoredDocument): string {
  return input.number === "" ? `the document of ${displayDate(input.date)}` : input.number;
}
