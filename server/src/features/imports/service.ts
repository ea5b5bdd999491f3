import { FiscalError } from "@fiscalon/core/errors";
import type { ImportBatch, ImportContent, ImportSettings } from "@fiscalon/contract/imports";
import type { Work } from "../../base/work.ts";
import { writtenLevies } from "@fiscalon/core/incoming/levyWords";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { ClientRecord, ImportRecord } from "../../db/models.ts";
import { notFound } from "../../base/errors.ts";
import { loadClient } from "../../books/loadSetup.ts";
import { keepFile } from "../../base/files.ts";
import { recognised } from "./recognise.ts";
import { REASON_COLUMN } from "./rejectedRows.ts";

/** Takes a file in: keeps it, and recognises what it is. Nothing is posted. */
export async function receiveFile(
  work: Work,
  clientId: number,
  file: { content?: ImportContent; direction: "sale" | "purchase"; name: string; bytes: Buffer },
): Promise<number> {
  const client = await loadClient(work, clientId);
  const { content, encoding, shape } = await recognised(file.bytes, file.content ?? "register", {
    order: work.packs.ofCountry(client.country)?.dateOrder ?? "dmy",
    levies: writtenLevies(await clientPacks(work, client)),
  });
  const fresh: ImportSettings = {
    mapping: shape.mapping,
    dateOrder: shape.dateOrder,
    decimal: shape.decimal,
    codeForBlank: null,
    codeForZero: null,
    account: null,
    leftOut: [],
    mended: [],
    ...(content === "audit-file" ? { take: "documents" as const } : {}),
  };
  const settings = await settingsLikeBefore(
    work,
    clientId,
    { content, direction: file.direction, shape },
    fresh,
  );
  const fileHash = keepFile(work.folder, file.bytes);
  return work.write(async (work) => {
    const row = await work.models.imports.create(
      {
        clientId,
        content,
        direction: file.direction,
        fileName: file.name.slice(0, 200),
        fileHash,
        bytes: file.bytes.length,
        encoding,
        shape,
        settings,
        report: null,
        state: "recognised",
        documents: 0,
        ...work.made,
      },
      work.options,
    );
    await work.record({
      action: "receive",
      entity: "import",
      id: row.id,
      after: { file: file.name, fileHash },
    });
    return row.id;
  });
}

/** The jurisdictions whose tax the papers of a client bear: its own country and wherever it is registered. */
async function clientPacks(work: Work, { id, country }: ClientRecord): Promise<JurisdictionPack[]> {
  const rows = await work.rows<{ pack: string }>(
    "SELECT DISTINCT pack FROM registrations WHERE client_id = $1",
    [id],
  );
  const home = work.packs.ofCountry(country);
  const others = rows.map(({ pack }) => work.packs.byId(pack)).filter((pack) => pack !== home);
  return home ? [home, ...others] : others;
}

/** The same columns from the same client are read as the last time they were posted: then somebody found them right. */
async function settingsLikeBefore(
  work: Work,
  clientId: number,
  { content, direction, shape }: Pick<ImportRecord, "content" | "direction" | "shape">,
  fresh: ImportSettings,
): Promise<ImportSettings> {
  const rows = await work.models.imports.findAll({
    where: { clientId, content, direction, state: ["posted", "undone"] },
    order: [["id", "DESC"]],
    limit: 20,
    ...work.options,
  });
  const namesOf = ({ columns }: ImportRecord["shape"]) =>
    JSON.stringify(columns.map(({ name }) => name).filter((name) => name !== REASON_COLUMN));
  const same = rows
    .map((row) => row.get({ plain: true }) as ImportRecord)
    .find((row) => namesOf(row.shape) === namesOf(shape));
  if (!same) return fresh;
  const { mapping, codeForBlank, codeForZero, account, chosen, take } = same.settings;
  return {
    ...fresh,
    mapping,
    codeForBlank,
    codeForZero,
    account,
    ...(chosen ? { chosen } : {}),
    ...(take ? { take } : {}),
    ...(shape.dateOrderSure ? {} : { dateOrder: same.settings.dateOrder }),
  };
}

export async function importRecord(work: Work, clientId: number, importId: number): Promise<ImportRecord> {
  const row = await work.models.imports.findOne({
    where: { id: importId, clientId },
    ...work.options,
  });
  if (!row) throw notFound("This import");
  return row.get({ plain: true }) as ImportRecord;
}

/** One import, with who brought it. */
export async function importBatch(work: Work, clientId: number, importId: number): Promise<ImportBatch> {
  const one = await importRecord(work, clientId, importId);
  const { name: by } = await work.one<{ name: string }>("SELECT name FROM people WHERE id = $1", [
    one.createdBy,
  ]);
  return {
    id: one.id,
    content: one.content,
    direction: one.direction,
    fileName: one.fileName,
    bytes: one.bytes,
    encoding: one.encoding,
    state: one.state,
    shape: one.shape,
    settings: one.settings,
    report: one.report,
    documents: one.documents,
    rejected: one.rejectedHash !== null,
    at: one.createdAt,
    by,
  };
}

/** Changes how a file is read; what the dry run said before no longer holds. */
export async function changeSettings(
  work: Work,
  clientId: number,
  importId: number,
  change: Partial<ImportSettings>,
): Promise<void> {
  await work.write(async (work) => {
    const record = await importRecord(work, clientId, importId);
    refusePosted(record);
    await work.models.imports.update(
      { settings: { ...record.settings, ...change }, report: null, rejectedHash: null, state: "recognised" },
      { where: { id: importId }, ...work.options },
    );
    const before = Object.fromEntries(Object.entries(record.settings).filter(([name]) => name in change));
    await work.record({ action: "change", entity: "import", id: importId, before, after: change });
  });
}

export function refusePosted(record: ImportRecord): void {
  if (record.state !== "posted") return;
  throw new FiscalError("imports/wrong-state", "This file is posted. Undo it first, or drop a new one.");
}
