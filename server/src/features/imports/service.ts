import { FiscalError } from "@fiscalon/core/errors";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import type { ImportBatch, ImportSettings } from "@fiscalon/contract/imports";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database } from "../../db/database.ts";
import type { ImportRecord } from "../../db/models.ts";
import { notFound } from "../../errors.ts";
import { loadClient } from "../clients/loadSetup.ts";
import { followEntries } from "../bank/followEntries.ts";
import { refusePaid } from "../payments/allocated.ts";
import { endEffects } from "../documents/postDocuments.ts";
import { decoded, encodingOf, keepFile, refuseForeignFile } from "./files.ts";

const RECOGNISE_BYTES = 262_144;

/** Takes a file in: keeps it, and recognises what it is. Nothing is posted. */
export async function receiveFile(
  db: Database,
  dataDir: string,
  actor: Actor,
  clientId: number,
  file: { direction: "sale" | "purchase"; name: string; content: Buffer },
): Promise<number> {
  const client = await loadClient(db, clientId);
  refuseForeignFile(file.content);
  const encoding = encodingOf(file.content);
  const text = decoded(file.content.subarray(0, RECOGNISE_BYTES), encoding);
  const shape = recogniseRegister(text, client.country === "US" ? "mdy" : "dmy");
  const settings: ImportSettings = {
    mapping: shape.mapping,
    dateOrder: shape.dateOrder,
    decimal: shape.decimal,
    codeForBlank: null,
    codeForZero: null,
    account: null,
    leftOut: [],
    mended: [],
  };
  const fileHash = keepFile(dataDir, file.content);
  return db.write(async (tx) => {
    const row = await db.models.imports.create(
      {
        clientId,
        direction: file.direction,
        fileName: file.name.slice(0, 200),
        fileHash,
        bytes: file.content.length,
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

export async function importRecord(db: Database, clientId: number, importId: number): Promise<ImportRecord> {
  const row = await db.models.imports.findOne({ where: { id: importId, clientId } });
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
      direction,
      fileName,
      bytes,
      encoding,
      state,
      shape,
      settings,
      report,
      documents,
      createdAt,
      createdBy,
    } = row.get({
      plain: true,
    }) as ImportRecord;
    const by = people.find((person) => person.id === createdBy)?.name ?? "";
    return {
      id,
      direction,
      fileName,
      bytes,
      encoding,
      state,
      shape,
      settings,
      report,
      documents,
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
      { settings: { ...record.settings, ...change }, report: null, state: "recognised" },
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
