import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../../base/work.ts";
import { followEntries } from "../../books/bankLines.ts";
import { endEffects } from "../../books/documents/postDocuments.ts";
import { refusePaid } from "../../books/payments/allocated.ts";
import { refuseBought } from "../../books/stock/boughtWith.ts";
import { givingWay } from "../../jobs/giveWay.ts";
import type { Progress } from "../../base/progress.ts";
import { removeMade } from "./masterRecords.ts";
import { importRecord } from "./service.ts";

/** Documents that are taken out by one statement. */
const SLICE = 2_000;

/**
 * Takes every document of an import out of the books again, as long as no sealed period holds one of them. Who saves
 * meanwhile goes first.
 */
export function undoImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<{ documents: number }> {
  return givingWay(work.database, progress, (locked) => takeAllOut(work, clientId, importId, locked));
}

function takeAllOut(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<{ documents: number }> {
  return work.write(async (work) => {
    const record = await importRecord(work, clientId, importId);
    if (record.state !== "posted")
      throw new FiscalError("imports/wrong-state", "Only a posted import can be undone.");
    await refuseSealed(work, importId);
    const rows = await work.rows<{ id: number }>(
      "SELECT id FROM documents WHERE import_id = $1 AND state = 'posted' ORDER BY id",
      [importId],
    );
    const ids = rows.map(({ id }) => id);
    await refusePaid(work, ids);
    await refuseBought(work, clientId, ids);
    for (let from = 0; from < ids.length; from += SLICE) {
      progress.step(from, ids.length, "taking documents out");
      await takeOut(work, ids.slice(from, from + SLICE));
    }
    progress.step(ids.length, ids.length, "taking documents out");
    await followEntries(work, clientId);
    await removeMade(work, clientId, record);
    await work.models.imports.update({ state: "undone" }, { where: { id: importId }, ...work.options });
    await work.record({
      action: "undo",
      entity: "import",
      id: importId,
      before: { documents: ids.length },
    });
    return { documents: ids.length };
  });
}

async function refuseSealed(work: Work, importId: number): Promise<void> {
  const locked = await work.row<{ end: string; count: number }>(
    `SELECT r.period_end AS end, count(DISTINCT d.id) AS count FROM documents d JOIN facts f ON f.document_id = d.id AND f.live = 1
       JOIN returns r ON r.registration_id = f.registration_id AND r.period_end = f.period_end
         AND r.state IN ('sealed', 'filed', 'settled')
     WHERE d.import_id = $1 AND d.state = 'posted' GROUP BY r.period_end ORDER BY 1 LIMIT 1`,
    [importId],
  );
  if (!locked) return;
  throw new FiscalError(
    "imports/sealed",
    `${locked.count} of its documents are on the return to ${displayDate(locked.end)}, which is sealed. This import stays.`,
  );
}

async function takeOut(work: Writing, ids: readonly number[]): Promise<void> {
  await endEffects(work, ids);
  await work.run(
    `UPDATE documents SET state = 'void', ended_at = $1, ended_by = $2, end_reason = 'import undone'
     WHERE id IN (SELECT value FROM json_each($3))`,
    [work.at, work.person, JSON.stringify(ids)],
  );
}
