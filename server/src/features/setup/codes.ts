import { FiscalError } from "@fiscalon/core/errors";
import { checkCode } from "@fiscalon/core/tax/checkCode";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { CodeUse } from "@fiscalon/contract/views";
import type { Work, Writing } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

export async function codeUses(work: Work, clientId: number): Promise<CodeUse[]> {
  const rows = await work.rows<{ code: string; active: number; definition: string }>(
    "SELECT code, active, definition FROM codes WHERE client_id = $1 ORDER BY position",
    [clientId],
  );
  const used = await usedCodes(work, clientId);
  return rows.map(({ code, active, definition }) => ({
    code,
    archived: active !== 1,
    lines: expandCode(JSON.parse(definition) as TaxCode).reduce(
      (sum, one) => sum + (used.get(one.code) ?? 0),
      0,
    ),
  }));
}

/** Lines of posted documents by code: all there are, from their index alone, less those of documents taken out. */
async function usedCodes(work: Work, clientId: number): Promise<Map<string, number>> {
  const rows = await work.remembered("codes used", [clientId], (work) =>
    work.rows<{ code: string; lines: number }>(
      `SELECT code, sum(lines) AS lines FROM (
         SELECT code, count(*) AS lines FROM lines INDEXED BY lines_of_code WHERE code > '' GROUP BY code
         UNION ALL
         SELECT l.code, -count(*) FROM documents d CROSS JOIN lines l ON l.document_id = d.id
         WHERE d.client_id = $1 AND (d.state < 'posted' OR d.state > 'posted') AND l.code > '' GROUP BY l.code)
       GROUP BY code`,
      [clientId],
    ),
  );
  return new Map(rows.map(({ code, lines }) => [code, lines]));
}

/**
 * Creates a code, or changes one: what is posted keeps the effect it had. A code that is on documents keeps its
 * name, direction and levies; another code is made for another meaning.
 */
export async function saveCode(
  work: Work,
  clientId: number,
  definition: TaxCode,
  replaces: string | null,
): Promise<void> {
  await work.write((work) => saveCodeIn(work, clientId, definition, replaces));
}

export async function saveCodeIn(
  work: Writing,
  clientId: number,
  definition: TaxCode,
  replaces: string | null,
): Promise<void> {
  const setup = await loadSetup(work, clientId);
  checkCode(definition, surroundings(setup));
  const twin = setup.plain.codes.find((code) => code.code === definition.code);
  if (twin && twin.code !== replaces) {
    throw new FiscalError(
      "code/duplicate",
      `There is a code ${definition.code} already: ${twin.name}. Choose another name.`,
      "code",
    );
  }
  if (replaces === null) return createCode(work, setup, definition);
  const old = setup.plain.codes.find((code) => code.code === replaces);
  if (!old) throw notFound("This tax code");
  await refuseOtherMeaning(work, clientId, old, definition);
  await work.models.codes.update(
    { code: definition.code, definition },
    { where: { clientId, code: replaces }, ...work.options },
  );
  await work.record({
    action: "change",
    entity: "code",
    id: null,
    before: old,
    after: definition,
  });
}

async function createCode(work: Writing, setup: ClientSetup, definition: TaxCode): Promise<void> {
  const clientId = setup.client.id;
  await work.models.codes.create(
    {
      clientId,
      code: definition.code,
      definition,
      active: true,
      position: setup.plain.codes.length,
      ...work.made,
    },
    work.options,
  );
  await work.record({
    action: "create",
    entity: "code",
    id: null,
    after: definition,
  });
}

async function refuseOtherMeaning(
  work: Writing,
  clientId: number,
  old: TaxCode,
  definition: TaxCode,
): Promise<void> {
  const used = await usedCodes(work, clientId);
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
function surroundings({ client, registrations, plain, effect }: ClientSetup) {
  const ids = new Set(registrations.map((r) => effect.packs.byId(r.pack).id));
  const packs = effect.packs.all.filter((pack) => ids.has(pack.id) || pack.country === client.country);
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
  work: Work,
  clientId: number,
  code: string,
  archived: boolean,
): Promise<void> {
  await work.write(async (work) => {
    const [changed] = await work.models.codes.update(
      { active: !archived },
      { where: { clientId, code }, ...work.options },
    );
    if (changed === 0) throw notFound("This tax code");
    await work.record({
      action: archived ? "archive" : "restore",
      entity: "code",
      id: null,
      after: { code },
    });
  });
}

/** Deletes a code that was never used. */
export async function deleteCode(work: Work, clientId: number, code: string): Promise<void> {
  await work.write(async (work) => {
    const row = await work.models.codes.findOne({ where: { clientId, code }, ...work.options });
    if (!row) throw notFound("This tax code");
    const used = await usedCodes(work, clientId);
    if (expandCode(row.definition).some((one) => used.has(one.code))) {
      throw new FiscalError("code/in-use", `${code} is on documents. Archive it instead.`);
    }
    await row.destroy(work.options);
    await work.record({
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
  work: Work,
  clientId: number,
  code: string,
  { side, scope, place }: { side: "sale" | "purchase"; scope: DefaultScope; place: number | null },
): Promise<{ items: number }> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const definition = setup.effect.codes.get(code);
    if (!definition) throw notFound("This tax code");
    if (definition.direction !== "both" && definition.direction !== side) {
      throw new FiscalError("code/wrong-side", `${code} is for ${definition.direction}s.`, "side");
    }
    const column = side === "sale" ? "saleCode" : "purchaseCode";
    let items = 0;
    if (scope !== "new") {
      [items] = await work.models.items.update({ [column]: code }, { where: { clientId }, ...work.options });
    }
    if (scope !== "existing" && place === null) {
      await work.models.clients.update({ [column]: code }, { where: { id: clientId }, ...work.options });
    }
    if (scope !== "existing" && place !== null) {
      const where = { id: place, clientId };
      const [changed] = await work.models.places.update({ [column]: code }, { where, ...work.options });
      if (changed === 0) throw notFound("This place");
    }
    await work.record({
      action: "default",
      entity: "code",
      id: null,
      after: { code, side, scope, place, items },
    });
    return { items };
  });
}
