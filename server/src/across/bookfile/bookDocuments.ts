import { at as element } from "@fiscalon/core/at";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { BookDocument } from "@fiscalon/contract/document";
import type { Writing } from "../../base/work.ts";
import type { Progress } from "../../base/progress.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { endEffects, postDocuments } from "../../books/documents/postDocuments.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { placedAt, refOf } from "./pointers.ts";
import type { PlacedRows } from "./pointers.ts";

const CHUNK = 1000;

/** Ids by what the file calls them. */
export type Refs = { contacts: Map<string, number>; places: Map<string, number>; placed: PlacedRows };
export type Numbered = { document: BookDocument; index: number };

/** Posts documents of a book file, and takes those out that were void. Errors carry the path in the file. */
export async function postAll(
  work: Writing,
  setup: ClientSetup,
  documents: readonly Numbered[],
  refs: Refs,
  progress: Progress,
): Promise<void> {
  for (let at = 0; at < documents.length; at += CHUNK) {
    progress.step(at, documents.length, "posting documents");
    const batch = documents.slice(at, at + CHUNK);
    const prepared = batch.map(({ document, index }) => newDocument(document, index, refs));
    try {
      const ids = await postDocuments(work, setup, prepared);
      batch.forEach(({ index }, of) => (refs.placed.documents[index] = element(ids, of)));
      await takeOut(work, batch, ids);
    } catch (error) {
      throw located(error, batch, prepared, setup);
    }
  }
}

/** Documents that were void stay on record, with the reason and their number. */
async function takeOut(work: Writing, batch: readonly Numbered[], ids: readonly number[]): Promise<void> {
  const out = batch.flatMap(({ document }, at) =>
    document.void === undefined ? [] : [{ id: element(ids, at), reason: document.void }],
  );
  if (out.length === 0) return;
  await endEffects(
    work,
    out.map(({ id }) => id),
  );
  await work.run(
    `UPDATE documents SET state = 'void', ended_at = $2, ended_by = $3, end_reason = t.value ->> 'reason'
     FROM json_each($1) t WHERE documents.id = t.value ->> 'id'`,
    [JSON.stringify(out), work.at, work.person],
  );
}

/** Finds the document of a batch that an error belongs to, so that the path points into the file. */
function located(
  error: unknown,
  batch: readonly Numbered[],
  prepared: readonly NewDocument[],
  setup: ClientSetup,
): unknown {
  if (!(error instanceof FiscalError)) return error;
  for (const [at, one] of batch.entries()) {
    const input = prepared[at]?.input;
    const path = `documents[${one.index}]`;
    try {
      if (input) withinField(path, () => documentEffect(input, setup.effect));
    } catch (found) {
      return found;
    }
  }
  return error;
}

function newDocument(document: BookDocument, index: number, refs: Refs): NewDocument {
  const {
    contact,
    place,
    corrects,
    note,
    reportedIn,
    creditReleased,
    sourceKey,
    origin,
    papers,
    explanation,
    ...rest
  } = document;
  const { void: _reason, ...input } = rest;
  return {
    input: { ...input, number: input.number || `#${index + 1}` },
    contact: refOf(refs.contacts, contact, `documents[${index}].contact`),
    place: refOf(refs.places, place, `documents[${index}].place`),
    corrects: corrects ?? null,
    note,
    sourceKey: sourceKey ?? null,
    ...(origin === undefined
      ? {}
      : {
          importId: placedAt(refs.placed, origin.import, `documents[${index}].origin.import`).id,
          sourceRows: origin.rows,
        }),
  };
}
