import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { Work } from "../../base/work.ts";
import { allDone } from "../../db/bulkInsert.ts";
import type { BulkInsert } from "../../db/bulkInsert.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { documentRow, insertAll, lineRows, noRows, takeEffect } from "./documentRows.ts";
import type { NextIds } from "./documentRows.ts";
import type { NewDocument } from "./newDocument.ts";

/** Documents whose rows are made while those before them are written. */
const SLICE = 500;
/** Slices that are written at once. */
const AT_ONCE = 4;

export interface Worked {
  document: NewDocument;
  effect: DocumentEffect;
}

/**
 * Writes documents with their lines, entries, postings and facts, slice by slice: what is worked out of one is let go
 * as soon as its rows are written.
 * @param next the ids the next rows get; it is moved on
 */
export async function writeDocuments(
  bulk: BulkInsert,
  worked: Iterable<Worked> | AsyncIterable<Worked>,
  to: { next: NextIds; setup: ClientSetup; work: Work },
): Promise<void> {
  const writing: Promise<void>[] = [];
  const write = async (rows: ReturnType<typeof noRows>) => {
    if (writing.length === AT_ONCE) await writing.shift();
    const slice = insertAll(bulk, rows);
    // Looked at further down; until then a failure must not end the process.
    slice.catch(() => undefined);
    writing.push(slice);
  };
  let rows = noRows();
  let count = 0;
  try {
    for await (const one of worked) {
      takeRows(rows, one, to);
      count += 1;
      if (count % SLICE !== 0) continue;
      await write(rows);
      rows = noRows();
    }
    await write(rows);
  } finally {
    await allDone(writing);
  }
}

function takeRows(
  rows: ReturnType<typeof noRows>,
  { document, effect }: Worked,
  { next, setup, work }: { next: NextIds; setup: ClientSetup; work: Work },
): void {
  const id = next.document++;
  rows.documents.push(documentRow(document, effect, id, setup, work));
  for (const line of lineRows(document, effect, id)) rows.lines.push([next.line++, ...line]);
  takeEffect(rows, document, effect, id, next, setup, work);
}
