import { FiscalError } from "@fiscalon/core/errors";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database } from "../../db/database.ts";
import { loadSetup, registrationIn } from "../clients/loadSetup.ts";
import { periodEnding, requireOpen } from "../returns/periods.ts";
import { boxesNow } from "../returns/evaluation.ts";
import { findingsOf } from "./service.ts";

/** Accepts a finding with a reason. What must be put right cannot be accepted. */
export async function acceptFinding(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
  key: string,
  reason: string,
): Promise<void> {
  await db.write(async (tx) => {
    const setup = await loadSetup(db, clientId, tx);
    const r = registrationIn(setup, rid);
    await requireOpen(db, r.id, end, tx);
    const { boxes } = await boxesNow(db, r, end, tx);
    const found = (await findingsOf(db, setup, r, periodEnding(r, end), boxes, tx)).find(
      (one) => one.key === key,
    );
    if (!found)
      throw new FiscalError(
        "findings/not-found",
        "This finding is gone; the list has been brought up to date.",
        "key",
      );
    if (found.severity === "stop") {
      throw new FiscalError(
        "findings/must-be-fixed",
        `"${found.title}" cannot be accepted; put it right first.`,
        "key",
      );
    }
    await db.models.acceptances.destroy({
      where: { registrationId: r.id, periodEnd: end, key },
      transaction: tx,
    });
    await db.models.acceptances.create(
      { clientId, registrationId: r.id, periodEnd: end, key, reason, ...made(actor) },
      { transaction: tx },
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "accept",
      entity: "finding",
      id: r.id,
      after: { period: end, key, reason },
    });
  });
}

/** Takes an acceptance back. */
export async function unacceptFinding(
  db: Database,
  actor: Actor,
  clientId: number,
  rid: string,
  end: string,
  key: string,
): Promise<void> {
  await db.write(async (tx) => {
    const r = registrationIn(await loadSetup(db, clientId, tx), rid);
    await requireOpen(db, r.id, end, tx);
    await db.models.acceptances.destroy({
      where: { registrationId: r.id, periodEnd: end, key },
      transaction: tx,
    });
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "unaccept",
      entity: "finding",
      id: r.id,
      before: { period: end, key },
    });
  });
}
