import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { isDeepStrictEqual } from "node:util";
import { FiscalError } from "@fiscalon/core/errors";
import { checkLawChange } from "@fiscalon/core/jurisdictions/amendedPack";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { LawChangeRow, LawFile, LawTaken } from "@fiscalon/contract/law";
import { inField, notFound } from "../../base/errors.ts";
import { lawOf } from "../../base/law.ts";
import type { Law } from "../../base/law.ts";
import type { Progress } from "../../base/progress.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { Practice } from "../../practice/practice.ts";
import { moveLaw } from "./moveLaw.ts";
import type { LawMove } from "./moveLaw.ts";
import type { LawStep } from "../../jobs/task.ts";

/** What the practice found out about the law, in the order it was put on record. */
export async function lawChangeRows(work: Work): Promise<LawChangeRow[]> {
  const rows = await work.rows<{ id: number; change: string; by: string; at: string }>(
    `SELECT l.id, l.change, p.name AS "by", l.created_at AS at FROM law_changes l JOIN people p ON p.id = l.created_by
     ORDER BY l.id`,
  );
  return rows.map(({ change, ...row }) => ({ ...row, change: JSON.parse(change) as LawChange }));
}

/** Does a step of the law and gives what its request is answered with. */
export async function changedLaw(
  practice: Practice,
  work: Work,
  step: LawStep,
  progress: Progress,
): Promise<LawChangeRow[] | LawTaken> {
  if (step.what === "file") return takeLawFile(practice, work, step.file, progress);
  if (step.what === "add") await addLawChange(practice, work, step.change, progress);
  else await removeLawChange(practice, work, step.id, progress);
  return lawChangeRows(await practice.begin());
}

/** Puts a change on record; open documents that it moves are worked out anew. */
async function addLawChange(
  practice: Practice,
  work: Work,
  change: LawChange,
  progress: Progress,
): Promise<void> {
  await inField("change", async () => {
    const step = added(work.law, change);
    await moveLaw(practice, work, [step], progress, async (work) => {
      await refuseKnown(work, change);
      await putOnRecord(work, change);
    });
  });
}

/** Takes a change back: the law is as it ships again, or as the changes that are left say. */
async function removeLawChange(
  practice: Practice,
  work: Work,
  id: number,
  progress: Progress,
): Promise<void> {
  const known = await lawChangeRows(work);
  const row = known.find((one) => one.id === id);
  if (!row) throw notFound("This change of the law");
  const { change } = row;
  const left = known.flatMap((one) => (one.id === id ? [] : [one.change]));
  const step: LawMove = { from: work.law, to: lawOf(work.law.jurisdictions, left), change };
  await moveLaw(practice, work, [step], progress, async (work) => {
    const there = await work.models.lawChanges.findByPk(id, work.options);
    if (!there) throw notFound("This change of the law");
    await there.destroy(work.options);
    await work.record({ action: "delete", entity: "law", id, before: change });
  });
}

/** Everything found out, as a file for another practice. */
export function lawFile({ law }: Work): LawFile {
  return { format: "fiscalon-law", version: 1, changes: [...law.changes] };
}

/** Takes the changes of a file in, all or nothing; what is on record already stays once. */
async function takeLawFile(
  practice: Practice,
  work: Work,
  { changes }: LawFile,
  progress: Progress,
): Promise<LawTaken> {
  const fresh = changes.flatMap((change, index) =>
    work.law.changes.some((one) => isDeepStrictEqual(one, change)) ? [] : [{ change, index }],
  );
  const steps: LawMove[] = [];
  let { law } = work;
  for (const { change, index } of fresh) {
    const step = await inField(`changes[${index}]`, async () => added(law, change));
    steps.push({ ...step, field: `changes[${index}]` });
    law = step.to;
  }
  await moveLaw(practice, work, steps, progress, async (work) => {
    for (const { change } of fresh) {
      await refuseKnown(work, change);
      await putOnRecord(work, change);
    }
  });
  return { added: fresh.length, known: changes.length - fresh.length };
}

function added(from: Law, change: LawChange): LawMove {
  checkLawChange(from.packs.byId(change.pack), change);
  return { from, to: lawOf(from.jurisdictions, [...from.changes, change]), change };
}

async function refuseKnown(work: Work, change: LawChange): Promise<void> {
  const known = (await lawChangeRows(work)).find((row) => isDeepStrictEqual(row.change, change));
  if (!known) return;
  throw new FiscalError(
    "law/known",
    `This is on record already, from ${displayDate(known.at)} by ${known.by}.`,
  );
}

async function putOnRecord(work: Writing, change: LawChange): Promise<void> {
  const row = await work.models.lawChanges.create(
    { pack: work.packs.byId(change.pack).id, change, ...work.made },
    work.options,
  );
  await work.record({ action: "create", entity: "law", id: row.id, after: change });
}
