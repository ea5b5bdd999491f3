import { setImmediate } from "node:timers/promises";
import type { Progress } from "../../base/progress.ts";
import type { Writing } from "../../base/work.ts";
import { followEntries } from "../bankLines.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { releaseFacts } from "../payments/releaseFacts.ts";
import { applyLateAnswers } from "../returns/lateAnswers.ts";
import { addSurroundings } from "./addSurroundings.ts";
import { insertAll, nextIds, noRows, takeEffect } from "./documentRows.ts";
import { loadDocuments } from "./loadDocuments.ts";
import type { StoredDocument } from "./loadDocuments.ts";
import { effectOf, endEffects } from "./postDocuments.ts";

/** Documents that are held in memory at once, however many there are. */
const SLICE = 1000;
/** Documents worked out before others are let in. */
const AT_ONCE = 100;

/**
 * Works out the effects of documents anew, superseding their entries and facts: after rates or registrations change.
 * Those that correct another one follow what they correct.
 * @param ids of posted documents of this client
 */
export async function recomputeDocuments(
  work: Writing,
  setup: ClientSetup,
  ids: readonly number[],
  progress: Progress,
): Promise<void> {
  const told = (done: number) => progress.step(done, ids.length, "working out documents anew");
  told(0);
  if (ids.length === 0) return;
  let done = 0;
  for (const group of await inTheirOrder(work, ids))
    for (let from = 0; from < group.length; from += SLICE) {
      const slice = group.slice(from, from + SLICE);
      await recomputeSlice(work, setup, await documentsWith(work, slice), slice);
      told((done += slice.length));
    }
  await followEntries(work, setup.client.id);
}

/** Documents that stand alone, then those that correct others, each in the order they were posted. */
async function inTheirOrder(work: Writing, ids: readonly number[]): Promise<readonly (readonly number[])[]> {
  const rows = await work.rows<{ id: number; correcting: number }>(
    `SELECT id, corrects IS NOT NULL AS correcting FROM documents WHERE id IN (SELECT value FROM json_each($1)) ORDER BY id`,
    [JSON.stringify(ids)],
  );
  return [0, 1].map((which) => rows.flatMap(({ id, correcting }) => (correcting === which ? [id] : [])));
}

function documentsWith(work: Writing, ids: readonly number[]): Promise<StoredDocument[]> {
  return loadDocuments(work, "d.id IN (SELECT value FROM json_each($1))", [JSON.stringify(ids)]);
}

async function recomputeSlice(
  work: Writing,
  setup: ClientSetup,
  documents: readonly StoredDocument[],
  ids: readonly number[],
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
  await endEffects(work, ids);
  await work.bulk((bulk) => insertAll(bulk, rows));
  await applyLateAnswers(work, setup.registrations, ids);
  await releaseFacts(work, setup, ids);
}
