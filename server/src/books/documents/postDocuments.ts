import { setImmediate } from "node:timers/promises";
import type { NewDocument } from "./newDocument.ts";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { Writing } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { applyLateAnswers } from "../returns/lateAnswers.ts";
import { followEntries } from "../bankLines.ts";
import { releaseFacts, turningRegistrations } from "../payments/releaseFacts.ts";
import { insertAll, nextIds, noRows, takeEffect } from "./documentRows.ts";
import { writeDocuments } from "./writeDocuments.ts";
import { addSurroundings } from "./addSurroundings.ts";

/** Documents worked out before others are let in. */
const AT_ONCE = 100;

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

/** Works out the effects of documents anew, superseding their entries and facts: after rates or registrations change. */
export async function recomputeDocuments(
  work: Writing,
  setup: ClientSetup,
  documents: readonly (NewDocument & { id: number })[],
): Promise<void> {
  await addSurroundings(work, setup, documents);
  const next = await nextIds(work);
  const rows = noRows();
  const totals: object[] = [];
  for (const [index, document] of documents.entries()) {
    if (index % AT_ONCE === AT_ONCE - 1) await setImmediate();
    const effect = effectOf(document, setup);
    takeEffect(rows, document, effect, document.id, next, setup, work);
    const { net, tax, gross } = effect.priced;
    const foreign = effect.printed === effect.priced ? null : effect.printed.gross;
    totals.push({ id: document.id, net, tax, gross, foreign, on: effect.ledgerDate });
  }
  await work.run(
    `UPDATE documents SET net = t.value ->> 'net', tax = t.value ->> 'tax', gross = t.value ->> 'gross',
       foreign_gross = t.value ->> 'foreign', ledger_date = t.value ->> 'on'
     FROM json_each($1) t WHERE documents.id = t.value ->> 'id'`,
    [JSON.stringify(totals)],
  );
  await endEffects(
    work,
    documents.map((document) => document.id),
  );
  await work.bulk((bulk) => insertAll(bulk, rows));
  await followEntries(work, setup.client.id);
  await applyLateAnswers(
    work,
    setup.registrations,
    documents.map((document) => document.id),
  );
  await releaseFacts(
    work,
    setup,
    documents.map((document) => document.id),
  );
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

function effectOf(document: NewDocument, setup: ClientSetup): DocumentEffect {
  return document.effect ?? documentEffect(document.input, setup.effect);
}
