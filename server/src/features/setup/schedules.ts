import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Progress } from "../../base/progress.ts";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { TouchedDocuments } from "@fiscalon/contract/views";
import { documentsTouched } from "../../books/documents/documentsTouched.ts";
import type { Touched } from "../../books/documents/documentsTouched.ts";
import { documentsNamed } from "../../books/documents/documentsNamed.ts";
import { recomputeDocuments } from "../../books/documents/recomputeDocuments.ts";

/** Which open documents a change of rates touches, without changing anything. */
export async function touchedBy(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return summary(work, await documentsTouched(work, { clientId, ref, rows }));
}

/** Keeps the rows of a schedule for this client and works the documents they touch out anew. */
export async function saveSchedule(
  work: Work,
  clientId: number,
  ref: string,
  rows: RateRow[],
  progress: Progress,
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return work.write(async (work) => {
    const touched = await documentsTouched(work, { clientId, ref, rows });
    const before = (await loadSetup(work, clientId)).plain.schedules[ref];
    const known = await work.models.schedules.findOne({ where: { clientId, ref }, ...work.options });
    if (known) await known.update({ rows }, work.options);
    else await work.models.schedules.create({ clientId, ref, rows, ...work.made }, work.options);
    await work.record({
      action: "change",
      entity: "schedule",
      id: null,
      before: { ref, rows: before },
      after: { ref, rows, documents: touched.open.length },
    });
    await recomputeDocuments(work, await loadSetup(work, clientId), touched.open, progress);
    return summary(work, touched);
  });
}

/** So many of them are shown. */
const SHOWN = 20;

async function summary(work: Work, { open, declared }: Touched): Promise<TouchedDocuments> {
  return { count: open.length, declared, first: await documentsNamed(work, open.slice(0, SHOWN)) };
}
