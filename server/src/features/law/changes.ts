import { isDeepStrictEqual } from "node:util";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { checkLawChange } from "@fiscalon/core/jurisdictions/amendedPack";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { LawChangeRow, LawFile, LawTaken } from "@fiscalon/contract/law";
import { notFound } from "../../base/errors.ts";
import { packsWith } from "../../base/packShelf.ts";
import type { Work, Writing } from "../../base/work.ts";
import { lawChanges, ownJurisdictions } from "../../books/ownPacks.ts";
import { documentsMoved, recompute } from "./touched.ts";

/** What the practice found out about the law, in the order it was put on record. */
export async function lawChangeRows(work: Work): Promise<LawChangeRow[]> {
  const rows = await work.rows<{ id: number; change: string; by: string; at: string }>(
    `SELECT l.id, l.change, p.name AS "by", l.created_at AS at FROM law_changes l JOIN people p ON p.id = l.created_by
     ORDER BY l.id`,
  );
  return rows.map(({ change, ...row }) => ({ ...row, change: JSON.parse(change) as LawChange }));
}

/** Puts a change on record; open documents that it moves are worked out anew. */
export async function addLawChange(work: Work, change: LawChange): Promise<void> {
  await work.write(async (work) => {
    const known = (await lawChangeRows(work)).find((row) => isDeepStrictEqual(row.change, change));
    if (known) {
      throw new FiscalError(
        "law/known",
        `This is on record already, from ${known.at.slice(0, 10)} by ${known.by}.`,
        "change",
      );
    }
    await withinFieldOf("change", () => add(work, change));
  });
}

async function withinFieldOf<T>(field: string, run: () => Promise<T>): Promise<T> {
  try {
    return await run();
  } catch (error) {
    return withinField(field, () => {
      throw error;
    });
  }
}

async function add(work: Writing, change: LawChange): Promise<void> {
  checkLawChange(work.packs.byId(change.pack), change);
  const moved = change.kind === "rate" ? await documentsMoved(work, change) : [];
  const row = await work.models.lawChanges.create(
    { pack: work.packs.byId(change.pack).id, change, ...work.made },
    work.options,
  );
  await work.record({ client: null, action: "create", entity: "law", id: row.id, after: change });
  await recompute(await withLawNow(work), moved);
}

/** Takes a change back: the law is as it ships again, or as the changes that are left say. */
export async function removeLawChange(work: Work, id: number): Promise<void> {
  await work.write(async (work) => {
    const row = await work.models.lawChanges.findByPk(id, work.options);
    if (!row) throw notFound("This change of the law");
    const { change } = row;
    await row.destroy(work.options);
    await work.record({ client: null, action: "delete", entity: "law", id, before: change });
    if (change.kind !== "rate") return;
    const after = await withLawNow(work);
    const rows = after.packs.byId(change.pack).schedules[change.schedule] ?? [];
    const moved = await documentsMoved(work, change, rows);
    await recompute(after, moved);
  });
}

async function withLawNow(work: Writing): Promise<Writing> {
  return work.knowing(packsWith(await ownJurisdictions(work), await lawChanges(work)));
}

/** Everything found out, as a file for another practice. */
export async function lawFile(work: Work): Promise<LawFile> {
  return { format: "fiscalon-law", version: 1, changes: await lawChanges(work) };
}

/** Takes the changes of a file in, all or nothing; what is on record already stays once. */
export async function takeLawFile(work: Work, { changes }: LawFile): Promise<LawTaken> {
  return work.write(async (first) => {
    let work = first;
    const known = await lawChanges(work);
    const fresh = changes.filter((change) => !known.some((one) => isDeepStrictEqual(one, change)));
    for (const change of fresh) {
      await withinFieldOf(`changes[${changes.indexOf(change)}]`, () => add(work, change));
      work = await withLawNow(work);
    }
    return { added: fresh.length, known: changes.length - fresh.length };
  });
}
