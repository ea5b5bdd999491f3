import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { TouchedDocuments } from "@fiscalon/contract/views";
import { documentsTouched } from "../../books/documents/documentsTouched.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { recomputeDocuments } from "../../books/documents/postDocuments.ts";

/** Which open documents a change of rates touches, without changing anything. */
export async function touchedBy(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return summary(await documentsTouched(work, clientId, ref, rows));
}

/** Keeps the rows of a schedule for this client and works the documents they touch out anew. */
export async function saveSchedule(
  work: Work,
  clientId: number,
  ref: string,
  rows: RateRow[],
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return work.write(async (work) => {
    const documents = await documentsTouched(work, clientId, ref, rows);
    const before = (await loadSetup(work, clientId)).plain.schedules[ref];
    const known = await work.models.schedules.findOne({ where: { clientId, ref }, ...work.options });
    if (known) await known.update({ rows }, work.options);
    else await work.models.schedules.create({ clientId, ref, rows, ...work.made }, work.options);
    await work.record({
      action: "change",
      entity: "schedule",
      id: null,
      before: { ref, rows: before },
      after: { ref, rows, documents: documents.length },
    });
    await recomputeDocuments(work, await loadSetup(work, clientId), documents);
    return summary(documents);
  });
}

function summary(documents: readonly StoredDocument[]): TouchedDocuments {
  return {
    count: documents.length,
    first: documents
      .slice(0, 20)
      .map(({ id, input, gross }) => ({ id, number: input.number, date: input.date, gross })),
  };
}
