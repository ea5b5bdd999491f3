import { isDeepStrictEqual } from "node:util";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { checkPack } from "@fiscalon/core/jurisdictions/checkPack";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { lawOf } from "../base/law.ts";
import type { Law } from "../base/law.ts";
import { notFound } from "../base/errors.ts";
import type { Work, Writing } from "../base/work.ts";

/** The law as the file of the practice holds it at this moment of a transaction on it. */
export async function lawNow(work: Work): Promise<Law> {
  const jurisdictions = await work.models.jurisdictions.findAll({ order: ["ref"], ...work.options });
  const changes = await work.models.lawChanges.findAll({ order: ["id"], ...work.options });
  return lawOf(
    jurisdictions.map((row) => row.definition),
    changes.map((row) => row.change),
  );
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

/** Puts a jurisdiction that was checked on record. */
export async function writeJurisdiction(work: Writing, definition: OwnJurisdiction): Promise<void> {
  const known = await work.models.jurisdictions.findOne({ where: { ref: definition.id }, ...work.options });
  const before = known?.definition;
  if (known) await known.update({ definition }, work.options);
  else await work.models.jurisdictions.create({ ref: definition.id, definition, ...work.made }, work.options);
  await work.record({
    action: known ? "change" : "create",
    entity: "jurisdiction",
    id: null,
    before,
    after: definition,
  });
}

/** A law with the jurisdictions of a book file in it, and those of them that are new. */
export interface BroughtLaw {
  law: Law;
  fresh: readonly OwnJurisdiction[];
}

/**
 * The law with the jurisdictions a book brings along.
 * @throws FiscalError `book/jurisdiction-differs` where the practice has another one under the id
 */
export function lawBrought(law: Law, brought: readonly OwnJurisdiction[]): BroughtLaw {
  const fresh = brought.filter((one, index) =>
    withinField(`jurisdictions[${index}]`, () => isFresh(one, law.jurisdictions)),
  );
  if (fresh.length === 0) return { law, fresh };
  return { law: lawOf([...law.jurisdictions, ...fresh], law.changes), fresh };
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
    const { used } = await work.one<{ used: number }>(
      "SELECT count(*) AS used FROM registration_summaries WHERE pack = $1",
      [ref],
    );
    if (used > 0) {
      throw new FiscalError(
        "jurisdiction/in-use",
        `${used} registrations use ${row.definition.name}. It stays.`,
      );
    }
    await row.destroy(work.options);
    await work.record({
      action: "delete",
      entity: "jurisdiction",
      id: null,
      before: row.definition,
    });
  });
}
