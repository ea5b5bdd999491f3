import { FiscalError } from "@fiscalon/core/errors";
import { boxDefinition } from "@fiscalon/core/returns/evaluateReturn";
import { parseAmount } from "@fiscalon/core/money/amount";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { notFound } from "../../errors.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { formOf } from "./evaluation.ts";
import { periodEnding, requireOpen } from "./periods.ts";

export interface AdjustmentInput {
  box: string;
  amount: string;
  reason: string;
  evidence?: string;
}

/** Adds an amount to a box of an open period, with the reason. Boxes worked out from others cannot be adjusted. */
export async function addAdjustment(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  input: AdjustmentInput,
): Promise<number> {
  periodEnding(r, end);
  await requireOpen(db, r.id, end, tx);
  const box = boxDefinition(formOf(r, end), input.box);
  if (box.kind === "formula") {
    throw new FiscalError(
      "returns/computed-box",
      `Box ${input.box} is worked out from others (${box.formula}). Adjust one of those.`,
      "box",
    );
  }
  const row = await db.models.adjustments.create(
    {
      clientId: setup.client.id,
      registrationId: r.id,
      periodEnd: end,
      box: input.box,
      amount: parseAmount(input.amount, setup.plain.digits),
      reason: input.reason,
      evidence: input.evidence ?? "",
      ...made(actor),
    },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: setup.client.id,
    action: "adjust",
    entity: "return",
    id: r.id,
    after: { period: end, ...input },
  });
  return row.id;
}

export async function removeAdjustment(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  id: number,
): Promise<void> {
  const row = await db.models.adjustments.findOne({ where: { id, clientId }, transaction: tx });
  if (!row) throw notFound("This adjustment");
  await requireOpen(db, row.registrationId, row.periodEnd, tx);
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "remove",
    entity: "adjustment",
    id,
    before: row.get({ plain: true }),
  });
  await row.destroy({ transaction: tx });
}
