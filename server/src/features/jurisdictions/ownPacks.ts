import { isDeepStrictEqual } from "node:util";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { checkPack } from "@fiscalon/core/jurisdictions/checkPack";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { SHIPPED, useOwnPacks } from "@fiscalon/core/jurisdictions/packs";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import { notFound } from "../../errors.ts";

/** Makes the practice's own jurisdictions known to core; at start, after each change, and in each worker. */
export async function loadOwnPacks(db: Database): Promise<void> {
  useOwnPacks((await ownJurisdictions(db)).map(packOf));
}

export async function ownJurisdictions(db: Database): Promise<OwnJurisdiction[]> {
  const rows = await db.models.jurisdictions.findAll({ order: ["ref"] });
  return rows.map((row) => row.definition);
}

/** Keeps a jurisdiction after checking that everything in it can be computed, posted and filed. */
export async function saveJurisdiction(db: Database, actor: Actor, own: OwnJurisdiction): Promise<void> {
  if (SHIPPED.has(own.id)) {
    throw new FiscalError("jurisdiction/shipped", `${own.id} ships with Fiscalon. Choose another id.`, "id");
  }
  checkPattern(own.numberPattern);
  checkPack(own);
  await db.write((tx) => writeJurisdiction(db, tx, actor, own));
  await loadOwnPacks(db);
}

async function writeJurisdiction(db: Database, tx: Tx, actor: Actor, own: OwnJurisdiction): Promise<void> {
  const known = await db.models.jurisdictions.findOne({ where: { ref: own.id }, transaction: tx });
  const before = known?.definition;
  if (known) await known.update({ definition: own }, { transaction: tx });
  else
    await db.models.jurisdictions.create(
      { ref: own.id, definition: own, ...made(actor) },
      { transaction: tx },
    );
  await recordChange(db, tx, actor, {
    client: null,
    action: known ? "change" : "create",
    entity: "jurisdiction",
    id: null,
    before,
    after: own,
  });
}

/**
 * Runs work that brings jurisdictions along: they are known while it runs, written in its transaction, and forgotten
 * again where it fails.
 * @throws FiscalError `book/jurisdiction-differs` where the practice has another one under the id
 */
export async function withJurisdictions<T>(
  db: Database,
  actor: Actor,
  brought: readonly OwnJurisdiction[],
  work: (tx: Tx) => Promise<T>,
): Promise<T> {
  const known = await ownJurisdictions(db);
  const fresh = brought.filter((one, index) =>
    withinField(`jurisdictions[${index}]`, () => isFresh(one, known)),
  );
  if (fresh.length === 0) return db.write(work);
  useOwnPacks([...known, ...fresh].map(packOf));
  try {
    return await db.write(async (tx) => {
      for (const own of fresh) await writeJurisdiction(db, tx, actor, own);
      return work(tx);
    });
  } finally {
    await loadOwnPacks(db);
  }
}

function isFresh(own: OwnJurisdiction, known: readonly OwnJurisdiction[]): boolean {
  const there = known.find(({ id }) => id === own.id);
  if (there && isDeepStrictEqual(there, own)) return false;
  if (there || SHIPPED.has(own.id)) {
    throw new FiscalError(
      "book/jurisdiction-differs",
      `There is another jurisdiction ${own.id} here. Give that of the file another id, in its registrations too.`,
      "id",
    );
  }
  checkPattern(own.numberPattern);
  checkPack(own);
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
export async function deleteJurisdiction(db: Database, actor: Actor, ref: string): Promise<void> {
  await db.write(async (tx) => {
    const row = await db.models.jurisdictions.findOne({ where: { ref }, transaction: tx });
    if (!row) throw notFound("This jurisdiction");
    const used = await db.models.registrations.count({ where: { pack: ref }, transaction: tx });
    if (used > 0) {
      throw new FiscalError(
        "jurisdiction/in-use",
        `${used} registrations use ${row.definition.name}. It stays.`,
      );
    }
    await row.destroy({ transaction: tx });
    await recordChange(db, tx, actor, {
      client: null,
      action: "delete",
      entity: "jurisdiction",
      id: null,
      before: row.definition,
    });
  });
  await loadOwnPacks(db);
}
