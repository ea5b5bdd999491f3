import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { ReleaseBody } from "@fiscalon/contract/credit";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { releaseFacts } from "../payments/releaseFacts.ts";

/** Says that what the credit of documents waited for is there: their tax is deducted from that day on. */
export async function releaseCredit(work: Work, clientId: number, body: ReleaseBody): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    for (const document of body.documents) await keepRelease(work, setup, document, body);
    await releaseFacts(work, setup, body.documents);
  });
}

/** As releaseCredit for one document, before its facts follow; also used when a book file brings releases. */
export async function keepRelease(
  work: Writing,
  { client }: ClientSetup,
  document: number,
  { on, evidence }: Pick<ReleaseBody, "on" | "evidence">,
): Promise<void> {
  const held = await work.row<{ number: string; date: string; awaits: string | null }>(
    `SELECT d.number, d.date, (SELECT f.awaits FROM facts f WHERE f.document_id = d.id AND f.live = 1
       AND f.awaits IS NOT NULL LIMIT 1) AS awaits
     FROM documents d WHERE d.id = $1 AND d.client_id = $2`,
    [document, client.id],
  );
  if (!held) throw notFound("This document");
  if (held.awaits === null) {
    throw new FiscalError(
      "credit/not-held",
      `No tax of ${held.number} waits to be deducted. Say on the document what is missing first.`,
      "documents",
    );
  }
  if (on < held.date) {
    throw new FiscalError(
      "credit/before-document",
      `${held.number} is of ${displayDate(held.date)}. What it waits for cannot be there before.`,
      "on",
    );
  }
  await work.run(
    `INSERT INTO credit_releases (client_id, document_id, released_on, evidence, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (document_id) DO UPDATE SET released_on = excluded.released_on, evidence = excluded.evidence,
       created_at = excluded.created_at, created_by = excluded.created_by`,
    [client.id, document, on, evidence, work.at, work.person],
  );
  await work.record({
    action: "release",
    entity: "document",
    id: document,
    after: { on, evidence },
  });
}

/** Takes a release back, as long as no sealed period holds what it made deductible. */
export async function takeBackRelease(work: Work, clientId: number, document: number): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const release = await work.row<{ on: string }>(
      `SELECT released_on AS "on" FROM credit_releases WHERE document_id = $1 AND client_id = $2`,
      [document, clientId],
    );
    if (!release) throw notFound("This release");
    const sealed = await work.row<{ end: string }>(
      `SELECT r.period_end AS end FROM facts f JOIN returns r ON r.registration_id = f.registration_id
         AND r.period_end = f.period_end AND r.state IN ('sealed', 'filed', 'settled')
       WHERE f.document_id = $1 AND f.live = 1 AND f.release_of IN (SELECT id FROM facts WHERE awaits IS NOT NULL) LIMIT 1`,
      [document],
    );
    if (sealed) {
      throw new FiscalError(
        "credit/sealed",
        `The return to ${displayDate(sealed.end)} deducted it and is sealed. Open that one first.`,
      );
    }
    await work.run("DELETE FROM credit_releases WHERE document_id = $1", [document]);
    await work.record({
      action: "undo",
      entity: "document",
      id: document,
      before: release,
    });
    await releaseFacts(work, setup, [document]);
  });
}

/** A paper put beside a document ends a hold that waits for one. */
export async function releaseByPaper(
  work: Writing,
  clientId: number,
  document: number,
  name: string,
): Promise<void> {
  const rows = await work.rows<{ awaits: string; pack: string }>(
    `SELECT DISTINCT f.awaits, r.pack FROM facts f JOIN registrations r ON r.id = f.registration_id
     WHERE f.document_id = $1 AND f.live = 1 AND f.awaits IS NOT NULL
       AND NOT EXISTS (SELECT 1 FROM credit_releases c WHERE c.document_id = $1)`,
    [document],
  );
  const byPaper = rows.some(({ awaits, pack }) =>
    work.packs.byId(pack).creditHolds?.some((hold) => hold.id === awaits && hold.byPaper),
  );
  if (!byPaper) return;
  const setup = await loadSetup(work, clientId);
  const { date } = await work.one<{ date: string }>("SELECT date FROM documents WHERE id = $1", [document]);
  const on = date > work.today ? date : work.today;
  await keepRelease(work, setup, document, { on, evidence: name });
  await releaseFacts(work, setup, [document]);
}

/** A corrected document keeps the day on which what it waited for was there. */
export async function moveRelease(
  work: Writing,
  setup: ClientSetup,
  oldId: number,
  newId: number,
): Promise<void> {
  const moved = await work.row("SELECT 1 FROM credit_releases WHERE document_id = $1", [oldId]);
  if (!moved) return;
  await work.run("UPDATE credit_releases SET document_id = $2 WHERE document_id = $1", [oldId, newId]);
  await releaseFacts(work, setup, [newId]);
}
