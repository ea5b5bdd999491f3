import { isDeepStrictEqual } from "node:util";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { checkPack } from "@fiscalon/core/jurisdictions/checkPack";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { packsWith } from "../base/packShelf.ts";
import { notFound } from "../base/errors.ts";
import type { Work, Writing } from "../base/work.ts";

export async function ownJurisdictions(work: Work): Promise<OwnJurisdiction[]> {
  const rows = await work.models.jurisdictions.findAll({ order: ["ref"], ...work.options });
  return rows.map((row) => row.definition);
}

/** What the practice found out about the law, in the order it was put on record. */
export async function lawChanges(work: Work): Promise<LawChange[]> {
  const rows = await work.models.lawChanges.findAll({ order: ["id"], ...work.options });
  return rows.map((row) => row.change);
}

function ships(id: string): boolean {
  return SHIPPED.some((pack) => pack.id === id || pack.aliases?.includes(id));
}

/** Keeps a jurisdiction after checking that everything in it can be computed, posted and filed. */
export async function saveJurisdiction(work: Work, jurisdiction: OwnJurisdiction): Promise<void> {
  const { id } = jurisdiction;
  if (ships(id)) {
    throw new FiscalError("jurisdiction/shipped", `${id} ships with Fiscalon. Choose another id.`, "id");
  }
  checkPattern(jurisdiction.numberPattern);
  checkPack(jurisdiction);
  await work.write((work) => writeJurisdiction(work, jurisdiction));
}

async function writeJurisdiction(work: Writing, definition: OwnJurisdiction): Promise<void> {
  const known = await work.models.jurisdictions.findOne({ where: { ref: definition.id }, ...work.options });
  const before = known?.definition;
  if (known) await known.update({ definition }, work.options);
  else await work.models.jurisdictions.create({ ref: definition.id, definition, ...work.made }, work.options);
  await work.record({
    client: null,
    action: known ? "change" : "create",
    entity: "jurisdiction",
    id: null,
    before,
    after: definition,
  });
}

/**
 * Runs work that brings jurisdictions along: they are written in its transaction, and the work knows them.
 * @throws FiscalError `book/jurisdiction-differs` where the practice has another one under the id
 */
export function withJurisdictions<T>(
  work: Work,
  brought: readonly OwnJurisdiction[],
  run: (work: Writing) => Promise<T>,
): Promise<T> {
  return work.write(async (work) => {
    const known = await ownJurisdictions(work);
    const fresh = brought.filter((one, index) =>
      withinField(`jurisdictions[${index}]`, () => isFresh(one, known)),
    );
    for (const jurisdiction of fresh) await writeJurisdiction(work, jurisdiction);
    if (fresh.length === 0) return run(work);
    return run(work.knowing(packsWith([...known, ...fresh], await lawChanges(work))));
  });
}

function isFresh(jurisdiction: OwnJurisdiction, known: readonly OwnJurisdiction[]): boolean {
  const there = known.find(({ id }) => id === jurisdiction.id);
  if (there && isDeepStrictEqual(there, jurisdiction)) return false;
  if (there || ships(jurisdiction.id)) {
    throw new FiscalError(
      "book/jurisdiction-differs",
      `There is another jurisdiction ${jurisdiction.id} here. Give that of the file another id, in its registrations too.`,
      "id",
    );
  }
  checkPattern(jurisdiction.numberPattern);
  checkPack(jurisdiction);
  return true;
}

function checkPattern(pattern: string): void {
  withinField("numberPattern", () => {
    try {
      new RegExp(pattern);
    } catch {
      throw new FiscalError(
        "jurisdiction/pattern",
        `"${pattern}" is no pattern. Leave it empty to accept any number.`,
      );
    }
  });
}

/** Takes a jurisdiction out again, while no registration uses it. */
export async function deleteJurisdiction(work: Work, ref: string): Promise<void> {
  await work.write(async (work) => {
    const row = await work.models.jurisdictions.findOne({ where: { ref }, ...work.options });
    if (!row) throw notFound("This jurisdiction");
    const used = await work.models.registrations.count({ where: { pack: ref }, ...work.options });
    if (used > 0) {
      throw new FiscalError(
        "jurisdiction/in-use",
        `${used} registrations use ${row.definition.name}. It stays.`,
      );
    }
    await row.destroy(work.options);
    await work.record({
      client: null,
      action: "delete",
      entity: "jurisdiction",
      id: null,
      before: row.definition,
    });
  });
}
