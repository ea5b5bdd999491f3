import { createHash } from "node:crypto";
import { FiscalError } from "@fiscalon/core/errors";
import { recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { loadSetup, registrationIn, today } from "../clients/loadSetup.ts";
import { findingsOf } from "../findings/service.ts";
import { periodBefore, periodEnding, requireOpen } from "./periods.ts";
import { returnRecord, saveReturn } from "./records.ts";
import { boxesNow, figuresOf } from "./evaluation.ts";

/**
 * Freezes a period's figures: the boxes, how many facts they come from, and a hash over both. From then on its
 * documents are locked, and what turns up late goes to the next period.
 */
export async function sealReturn(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
): Promise<void> {
  await db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    const r = registrationIn(setup, rid);
    const period = periodEnding(r, end);
    await requireOpen(db, r.id, end, tx);
    if (end >= today()) {
      throw new FiscalError(
        "returns/not-ended",
        `The period runs to ${end}. It can be sealed from the day after.`,
      );
    }
    await refuseGap(db, tx, r, end);
    const { boxes } = await boxesNow(db, r, end, tx);
    const open = (await findingsOf(db, setup, r, period, boxes, tx)).filter(
      (finding) => finding.accepted === null,
    );
    if (open.length > 0) {
      throw new FiscalError(
        "returns/findings-open",
        `${open.length} ${open.length === 1 ? "finding is" : "findings are"} open. Put each right, or accept it with a reason.`,
      );
    }
    await freeze(db, tx, actor, clientId, r, end);
  });
}

/** Earlier periods first: a late item could not find its period otherwise. */
async function refuseGap(db: Database, tx: Tx, r: RegistrationRecord, end: string): Promise<void> {
  const before = periodBefore(r, periodEnding(r, end));
  if (!before) return;
  const record = await returnRecord(db, r.id, before.to, tx);
  const inUse = await db.row(
    "SELECT 1 FROM facts WHERE registration_id = $1 AND live = 1 AND period_end <= $2 AND NOT EXISTS (SELECT 1 FROM returns WHERE returns.registration_id = $1 AND returns.period_end = facts.period_end AND returns.state IN ('sealed', 'filed', 'settled')) LIMIT 1",
    [r.id, before.to],
    tx,
  );
  if (!inUse || record?.state === "sealed" || record?.state === "filed" || record?.state === "settled")
    return;
  throw new FiscalError("returns/earlier-open", `The period to ${before.to} is still open. Seal it first.`);
}

/** Writes the sealed state; also used when a book file brings sealed periods. */
export async function freeze(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  r: RegistrationRecord,
  end: string,
): Promise<void> {
  const period = periodEnding(r, end);
  const { boxes, factCount } = await boxesNow(db, r, end, tx);
  const kept = boxes.map(({ box, amount, exact }) => ({ box, amount, exact }));
  const ids = await db.row<{ ids: string | null }>(
    `SELECT group_concat(id, ',') AS ids FROM
       (SELECT id FROM facts WHERE registration_id = $1 AND period_end = $2 AND live = 1 ORDER BY id)`,
    [r.id, end],
    tx,
  );
  const hash = createHash("sha256")
    .update(JSON.stringify(kept))
    .update(ids?.ids ?? "")
    .digest("hex");
  const change = {
    state: "sealed" as const,
    boxes: kept,
    net: figuresOf(r, end, boxes).net,
    facts: factCount,
    hash,
    sealedAt: actor.at,
    sealedBy: actor.person,
  };
  await saveReturn(
    db,
    tx,
    actor,
    { clientId, registrationId: r.id, periodFrom: period.from, periodEnd: end },
    change,
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "seal",
    entity: "return",
    id: r.id,
    after: { period: end, hash, net: change.net },
  });
}

/** Opens a sealed period again; possible until it is filed and while no later one is sealed. */
export async function reopenReturn(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
): Promise<void> {
  await db.write(async (tx) => {
    const r = registrationIn(await loadSetup(db, clientId, tx), rid);
    const record = await returnRecord(db, r.id, end, tx);
    if (record?.state !== "sealed") {
      throw new FiscalError(
        "returns/wrong-state",
        "Only a period that is sealed and not yet filed can be opened again.",
      );
    }
    const later = await db.row<{ end: string }>(
      `SELECT period_end AS end FROM returns WHERE registration_id = $1 AND period_end > $2
         AND state IN ('sealed', 'filed', 'settled') LIMIT 1`,
      [r.id, end],
      tx,
    );
    if (later) {
      throw new FiscalError(
        "returns/wrong-state",
        `The period to ${later.end} is sealed on top of this one. Open that one first.`,
      );
    }
    await db.models.returns.update(
      { state: "open", boxes: null, net: null, facts: null, hash: null, sealedAt: null, sealedBy: null },
      { where: { id: record.id }, transaction: tx },
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "reopen",
      entity: "return",
      id: r.id,
      before: { period: end, hash: record.hash },
    });
  });
}

/** Moves a period between open and in review. */
export async function setReviewState(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
  state: "open" | "in-review",
): Promise<void> {
  await db.write(async (tx) => {
    const r = registrationIn(await loadSetup(db, clientId, tx), rid);
    const period = periodEnding(r, end);
    await requireOpen(db, r.id, end, tx);
    await saveReturn(
      db,
      tx,
      actor,
      { clientId, registrationId: r.id, periodFrom: period.from, periodEnd: end },
      { state },
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: state,
      entity: "return",
      id: r.id,
      after: { period: end },
    });
  });
}
