import { FiscalError } from "@fiscalon/core/errors";
import type { Work } from "../../base/work.ts";
import { loadSetup, registrationIn } from "../loadSetup.ts";
import { periodEnding, requireOpen } from "../returns/periods.ts";
import { boxesNow } from "../returns/evaluation.ts";
import { findingsOf } from "./service.ts";

/** Accepts a finding with a reason. What must be put right cannot be accepted. */
export async function acceptFinding(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  key: string,
  reason: string,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const r = registrationIn(setup, rid);
    await requireOpen(work, r.id, end);
    const { boxes } = await boxesNow(work, r, end);
    const found = (await findingsOf(work, setup, r, periodEnding(r, end), boxes)).find(
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
    await work.models.acceptances.destroy({
      where: { registrationId: r.id, periodEnd: end, key },
      ...work.options,
    });
    await work.models.acceptances.create(
      { clientId, registrationId: r.id, periodEnd: end, key, reason, ...work.made },
      work.options,
    );
    await work.record({
      action: "accept",
      entity: "finding",
      id: r.id,
      after: { period: end, key, reason },
    });
  });
}

/** Takes an acceptance back. */
export async function unacceptFinding(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  key: string,
): Promise<void> {
  await work.write(async (work) => {
    const r = registrationIn(await loadSetup(work, clientId), rid);
    await requireOpen(work, r.id, end);
    await work.models.acceptances.destroy({
      where: { registrationId: r.id, periodEnd: end, key },
      ...work.options,
    });
    await work.record({
      action: "unaccept",
      entity: "finding",
      id: r.id,
      before: { period: end, key },
    });
  });
}
