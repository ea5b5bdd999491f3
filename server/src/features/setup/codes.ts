import { FiscalError } from "@fiscalon/core/errors";
import { allPacks, packById } from "@fiscalon/core/jurisdictions/packs";
import { checkCode } from "@fiscalon/core/tax/checkCode";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import { notFound } from "../../errors.ts";
import { loadSetup } from "../clients/loadSetup.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";

/** How a code is used: on how many lines, and as whose default. */
export interface CodeUse {
  code: string;
  lines: number;
  archived: boolean;
}

export async function codeUses(db: Database, clientId: number): Promise<CodeUse[]> {
  const rows = await db.rows<{ code: string; active: number; definition: string }>(
    "SELECT code, active, definition FROM codes WHERE client_id = $1 ORDER BY position",
    [clientId],
  );
  const used = await usedCodes(db, clientId);
  return rows.map(({ code, active, definition }) => ({
    code,
    archived: active !== 1,
    lines: expandCode(JSON.parse(definition) as TaxCode).reduce(
      (sum, one) => sum + (used.get(one.code) ?? 0),
      0,
    ),
  }));
}

async function usedCodes(db: Database, clientId: number, tx?: Tx): Promise<Map<string, number>> {
  const rows = await db.rows<{ code: string; lines: number }>(
    `SELECT l.code, count(*) AS lines FROM documents d JOIN lines l ON l.document_id = d.id
     WHERE d.client_id = $1 AND d.state = 'posted' AND l.code IS NOT NULL GROUP BY l.code`,
    [clientId],
    tx,
  );
  return new Map(rows.map(({ code, lines }) => [code, lines]));
}

/**
 * Creates a code, or changes one: what is posted keeps the effect it had. A code that is on documents keeps its
 * name, direction and levies; another code is made for another meaning.
 */
export async function saveCode(
  db: Database,
  actor: Actor,
  clientId: number,
  definition: TaxCode,
  replaces: string | null,
): Promise<void> {
  await db.write((tx) => saveCodeIn(db, tx, actor, clientId, definition, replaces));
}

export async function saveCodeIn(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  definition: TaxCode,
  replaces: string | null,
): Promise<void> {
  const setup = await loadSetup(db, clientId, tx);
  checkCode(definition, surroundings(setup));
  const twin = setup.plain.codes.find((code) => code.code === definition.code);
  if (twin && twin.code !== replaces) {
    throw new FiscalError(
      "code/duplicate",
      `There is a code ${definition.code} already: ${twin.name}. Choose another name.`,
      "code",
    );
  }
  if (replaces === null) return createCode(db, tx, actor, setup, definition);
  const old = setup.plain.codes.find((code) => code.code === replaces);
  if (!old) throw notFound("This tax code");
  await refuseOtherMeaning(db, tx, clientId, old, definition);
  await db.models.codes.update(
    { code: definition.code, definition },
    { where: { clientId, code: replaces }, transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "change",
    entity: "code",
    id: null,
    before: old,
    after: definition,
  });
}

async function createCode(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  definition: TaxCode,
): Promise<void> {
  const clientId = setup.client.id;
  await db.models.codes.create(
    {
      clientId,
      code: definition.code,
      definition,
      active: true,
      position: setup.plain.codes.length,
      ...made(actor),
    },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "create",
    entity: "code",
    id: null,
    after: definition,
  });
}

async function refuseOtherMeaning(
  db: Database,
  tx: Tx,
  clientId: number,
  old: TaxCode,
  definition: TaxCode,
): Promise<void> {
  const used = await usedCodes(db, clientId, tx);
  if (!expandCode(old).some(({ code }) => used.has(code))) return;
  const levies = (code: TaxCode) =>
    code.components
      .map(({ levy }) => levy)
      .sort()
      .join();
  const same =
    old.code === definition.code &&
    old.direction === definition.direction &&
    levies(old) === levies(definition);
  if (same) return;
  throw new FiscalError(
    "code/in-use",
    `${old.code} is on documents, so its name, direction and levies stay. Archive it and make a new code.`,
    "code",
  );
}

/** What a client's codes are checked against: every jurisdiction it is registered in, and its own chart. */
function surroundings({ client, registrations, plain }: ClientSetup) {
  const ids = new Set(registrations.map((r) => packById(r.pack).id));
  const packs = allPacks().filter((pack) => ids.has(pack.id) || pack.country === client.country);
  const boxes = new Set(
    packs.flatMap((pack) => pack.forms.flatMap((form) => form.boxes.map((box) => box.id))),
  );
  return {
    levies: new Set(packs.flatMap((pack) => pack.levies.map(({ levy }) => levy))),
    schedules: plain.schedules,
    accounts: plain.accounts,
    hasBox: (box: string) => boxes.has(box),
  };
}

/** Takes a code out of the lists, or back; it stays on the documents that bear it. */
export async function archiveCode(
  db: Database,
  actor: Actor,
  clientId: number,
  code: string,
  archived: boolean,
): Promise<void> {
  await db.write(async (tx) => {
    const [changed] = await db.models.codes.update(
      { active: !archived },
      { where: { clientId, code }, transaction: tx },
    );
    if (changed === 0) throw notFound("This tax code");
    await recordChange(db, tx, actor, {
      client: clientId,
      action: archived ? "archive" : "restore",
      entity: "code",
      id: null,
      after: { code },
    });
  });
}

/** Deletes a code that was never used. */
export async function deleteCode(db: Database, actor: Actor, clientId: number, code: string): Promise<void> {
  await db.write(async (tx) => {
    const row = await db.models.codes.findOne({ where: { clientId, code }, transaction: tx });
    if (!row) throw notFound("This tax code");
    const used = await usedCodes(db, clientId, tx);
    if (expandCode(row.definition).some((one) => used.has(one.code))) {
      throw new FiscalError("code/in-use", `${code} is on documents. Archive it instead.`);
    }
    await row.destroy({ transaction: tx });
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "delete",
      entity: "code",
      id: null,
      before: row.definition,
    });
  });
}

/** Which items a new default reaches. `new`: only what is made from now on, the default of the business or place. */
export type DefaultScope = "existing" | "new" | "all";

/** Makes a code the default of items, of the business or of one place, on one side. */
export async function makeDefault(
  db: Database,
  actor: Actor,
  clientId: number,
  code: string,
  { side, scope, place }: { side: "sale" | "purchase"; scope: DefaultScope; place: number | null },
): Promise<{ items: number }> {
  return db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    const definition = setup.effect.codes.get(code);
    if (!definition) throw notFound("This tax code");
    if (definition.direction !== "both" && definition.direction !== side) {
      throw new FiscalError("code/wrong-side", `${code} is for ${definition.direction}s.`, "side");
    }
    const column = side === "sale" ? "saleCode" : "purchaseCode";
    let items = 0;
    if (scope !== "new") {
      [items] = await db.models.items.update({ [column]: code }, { where: { clientId }, transaction: tx });
    }
    if (scope !== "existing" && place === null) {
      await db.models.clients.update({ [column]: code }, { where: { id: clientId }, transaction: tx });
    }
    if (scope !== "existing" && place !== null) {
      const where = { id: place, clientId };
      const [changed] = await db.models.places.update({ [column]: code }, { where, transaction: tx });
      if (changed === 0) throw notFound("This place");
    }
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "default",
      entity: "code",
      id: null,
      after: { code, side, scope, place, items },
    });
    return { items };
  });
}
