import { FiscalError } from "@fiscalon/core/errors";
import type { ImportBatch, ImportContent, ImportSettings } from "@fiscalon/contract/imports";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { ImportRecord } from "../../db/models.ts";
import { notFound } from "../../errors.ts";
import { loadClient } from "../clients/loadSetup.ts";
import { followEntries } from "../bank/followEntries.ts";
import { refusePaid } from "../payments/allocated.ts";
import { endEffects } from "../documents/postDocuments.ts";
import { keepFile } from "./files.ts";
import { removeMade } from "./masterRecords.ts";
import { recognised } from "./recognise.ts";
import { REASON_COLUMN } from "./rejectedRows.ts";

/** Takes a file in: keeps it, and recognises what it is. Nothing is posted. */
export async function receiveFile(
  db: Database,
  dataDir: string,
  actor: Actor,
  clientId: number,
  file: { content?: ImportContent; direction: "sale" | "purchase"; name: string; bytes: Buffer },
): Promise<number> {
  const client = await loadClient(db, clientId);
  const order = client.country === "US" ? "mdy" : "dmy";
  const { content, encoding, shape } = await recognised(file.bytes, file.content ?? "register", order);
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
    db,
    clientId,
    { content, direction: file.direction, shape },
    fresh,
  );
  const fileHash = keepFile(dataDir, file.bytes);
  return db.write(async (tx) => {
    const row = await db.models.imports.create(
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
        ...made(actor),
      },
      { transaction: tx },
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "receive",
      entity: "import",
      id: row.id,
      after: { file: file.name, fileHash },
    });
    return row.id;
  });
}

/** The same columns from the same client are read as the last time. */
async function settingsLikeBefore(
  db: Database,
  clientId: number,
  { content, direction, shape }: Pick<ImportRecord, "content" | "direction" | "shape">,
  fresh: ImportSettings,
): Promise<ImportSettings> {
  const rows = await db.models.imports.findAll({
    where: { clientId, content, direction },
    order: [["id", "DESC"]],
    limit: 20,
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

export async function importRecord(
  db: Database,
  clientId: number,
  importId: number,
  tx?: Tx,
): Promise<ImportRecord> {
  const row = await db.models.imports.findOne({
    where: { id: importId, clientId },
    ...(tx ? { transaction: tx } : {}),
  });
  if (!row) throw notFound("This import");
  return row.get({ plain: true }) as ImportRecord;
}

/** Imports of a client, newest first. */
export async function importBatches(
  db: Database,
  clientId: number,
  importId: number | null,
): Promise<ImportBatch[]> {
  const people = await db.rows<{ id: number; name: string }>("SELECT id, name FROM people");
  const rows = await db.models.imports.findAll({
    where: importId === null ? { clientId } : { clientId, id: importId },
    order: [["id", "DESC"]],
    limit: 200,
  });
  return rows.map((row) => {
    const {
      id,
      content,
      direction,
      fileName,
      bytes,
      encoding,
      state,
      shape,
      settings,
      report,
      documents,
      rejectedHash,
      createdAt,
      createdBy,
    } = row.get({
      plain: true,
    }) as ImportRecord;
    const by = people.find((person) => person.id === createdBy)?.name ?? "";
    return {
      id,
      content,
      direction,
      fileName,
      bytes,
      encoding,
      state,
      shape,
      settings,
      report,
      documents,
      rejected: rejectedHash !== null,
      at: createdAt,
      by,
    };
  });
}

/** Changes how a file is read; what the dry run said before no longer holds. */
export async function changeSettings(
  db: Database,
  clientId: number,
  importId: number,
  change: Partial<ImportSettings>,
): Promise<void> {
  await db.write(async (tx) => {
    const record = await importRecord(db, clientId, importId);
    refusePosted(record);
    await db.models.imports.update(
      { settings: { ...record.settings, ...change }, report: null, rejectedHash: null, state: "recognised" },
      { where: { id: importId }, transaction: tx },
    );
  });
}

export function refusePosted(record: ImportRecord): void {
  if (record.state !== "posted") return;
  throw new FiscalError("imports/wrong-state", "This file is posted. Undo it first, or drop a new one.");
}

/** Takes every document of an import out of the books again, as long as no sealed period holds one of them. */
export async function undoImport(
  db: Database,
  actor: Actor,
  clientId: number,
  importId: number,
): Promise<number> {
  return db.write(async (tx) => {
    const record = await importRecord(db, clientId, importId);
    if (record.state !== "posted")
      throw new FiscalError("imports/wrong-state", "Only a posted import can be undone.");
    const locked = await db.row<{ end: string; count: number }>(
      `SELECT r.period_end AS end, count(DISTINCT d.id) AS count FROM documents d JOIN facts f ON f.document_id = d.id AND f.live = 1
         JOIN returns r ON r.registration_id = f.registration_id AND r.period_end = f.period_end
           AND r.state IN ('sealed', 'filed', 'settled')
       WHERE d.import_id = $1 AND d.state = 'posted' GROUP BY r.period_end ORDER BY 1 LIMIT 1`,
      [importId],
      tx,
    );
    if (locked) {
      throw new FiscalError(
        "imports/sealed",
        `${locked.count} of its documents are on the return to ${locked.end}, which is sealed. This import stays.`,
      );
    }
    const documents = await db.rows<{ id: number }>(
      "SELECT id FROM documents WHERE import_id = $1 AND state = 'posted'",
      [importId],
      tx,
    );
    const ids = documents.map((document) => document.id);
    await refusePaid(db, tx, ids);
    await endEffects(db, tx, ids);
    await followEntries(db, tx, clientId);
    await db.run(
      "UPDATE documents SET state = 'void', ended_at = $1, ended_by = $2, end_reason = 'import undone' WHERE import_id = $3 AND state = 'posted'",
      [actor.at, actor.person, importId],
      tx,
    );
    await removeMade(db, tx, clientId, record);
    await db.models.imports.update({ state: "undone" }, { where: { id: importId }, transaction: tx });
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "undo",
      entity: "import",
      id: importId,
      before: { documents: ids.length },
    });
    return ids.length;
  });
}
