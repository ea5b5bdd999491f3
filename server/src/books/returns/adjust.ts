import { FiscalError } from "@fiscalon/core/errors";
import { isFamily } from "@fiscalon/core/returns/boxFamily";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { notFound } from "../../base/errors.ts";
import type { ClientSetup } from "../loadSetup.ts";
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
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  input: AdjustmentInput,
): Promise<number> {
  periodEnding(r, end);
  await requireOpen(work, r.id, end);
  const box = boxDefinition(formOf(work, r, end), input.box);
  if (isFamily(box.id)) {
    throw new FiscalError("returns/no-box", `${box.id} stands for several boxes. Say which one.`, "box");
  }
  if (box.kind === "formula" || box.kind === "taxed") {
    const from = box.kind === "formula" ? box.formula : `[${box.of}]`;
    throw new FiscalError(
      "returns/computed-box",
      `Box ${input.box} is worked out from others (${from}). Adjust one of those.`,
      "box",
    );
  }
  const row = await work.models.adjustments.create(
    {
      clientId: setup.client.id,
      registrationId: r.id,
      periodEnd: end,
      box: input.box,
      amount: parseAmount(input.amount, setup.plain.digits),
      reason: input.reason,
      evidence: input.evidence ?? "",
      ...work.made,
    },
    work.options,
  );
  await work.record({
    action: "adjust",
    entity: "return",
    id: r.id,
    after: { period: end, ...input },
  });
  return row.id;
}

export async function removeAdjustment(work: Writing, clientId: number, id: number): Promise<void> {
  const row = await work.models.adjustments.findOne({ where: { id, clientId }, ...work.options });
  if (!row) throw notFound("This adjustment");
  await requireOpen(work, row.registrationId, row.periodEnd);
  await work.record({
    action: "remove",
    entity: "adjustment",
    id,
    before: row.get({ plain: true }),
  });
  await row.destroy(work.options);
}
