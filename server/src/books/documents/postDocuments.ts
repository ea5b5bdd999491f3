import type { NewDocument } from "./newDocument.ts";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { Writing } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { releaseFacts, turningRegistrations } from "../payments/releaseFacts.ts";
import { nextIds } from "./documentRows.ts";
import { writeDocuments } from "./writeDocuments.ts";
import { addSurroundings } from "./addSurroundings.ts";

/**
 * Posts documents: the documents with their lines, one journal entry and the tax facts each. Set by set, so that
 * fifty thousand cost a handful of statements.
 * @returns the ids of the documents, in order
 * @throws FiscalError with the path `documents[n]…` of the first that cannot be computed; nothing is written then
 */
export async function postDocuments(
  work: Writing,
  setup: ClientSetup,
  documents: readonly NewDocument[],
): Promise<number[]> {
  await addSurroundings(work, setup, documents);
  const next = await nextIds(work);
  const first = next.document;
  const waiting: number[] = [];
  const turning = turningRegistrations(work, setup).length > 0;
  const worked = function* () {
    for (const document of documents) {
      const effect = effectOf(document, setup);
      if (turning || effect.facts.some(({ held }) => held)) waiting.push(next.document);
      yield { document, effect };
    }
  };
  await work.bulk((bulk) => writeDocuments(bulk, worked(), { next, setup, work }));
  // After a change of basis what waits may be due at once, although no payment comes.
  await releaseFacts(work, setup, waiting);
  return documents.map((_, index) => first + index);
}

/** Entries and facts of documents stop counting; they stay on record. */
export async function endEffects(work: Writing, documentIds: readonly number[]): Promise<void> {
  const ids = [JSON.stringify(documentIds)];
  await work.run(`UPDATE facts SET live = 0 WHERE document_id IN (SELECT value FROM json_each($1))`, ids);
  await work.run(
    `UPDATE postings SET live = 0 WHERE entry_id IN
       (SELECT id FROM entries WHERE document_id IN (SELECT value FROM json_each($1)))`,
    ids,
  );
  await work.run(`UPDATE entries SET live = 0 WHERE document_id IN (SELECT value FROM json_each($1))`, ids);
}

/** What a document does, worked out unless it is known. */
export function effectOf(document: NewDocument, setup: ClientSetup): DocumentEffect {
  return document.effect ?? documentEffect(document.input, setup.effect);
}
