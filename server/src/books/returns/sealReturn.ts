import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { KeptAgreement } from "@fiscalon/contract/agreements";
import type { SeenBox } from "@fiscalon/contract/returns";
import { sealedHash } from "./sealedHash.ts";
import { refuseWhileSent } from "./filings.ts";
import type { Work, Writing } from "../../base/work.ts";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { RegistrationRecord } from "../../db/models.ts";
import { agreementsToKeep } from "../agree/compared.ts";
import { loadSetup, registrationIn } from "../loadSetup.ts";
import { findingsOf } from "../findings/service.ts";
import { takeBackSeparate } from "./late.ts";
import { periodBefore, periodEnding, requireOpen } from "./periods.ts";
import { returnRecord, saveReturn } from "./records.ts";
import { refuseMoved } from "./seenFigures.ts";
import { boxesNow, digitsOf, figuresOf } from "./evaluation.ts";

/**
 * Freezes a period's figures: the boxes, how many facts they come from, and a hash over both. From then on its
 * documents are locked, and what turns up late goes to the next period.
 * @param seen the figures whoever seals it looked at
 */
export async function sealReturn(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  seen?: readonly SeenBox[],
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const r = registrationIn(setup, rid);
    const period = periodEnding(r, end);
    await requireOpen(work, r.id, end);
    if (end >= work.today) {
      throw new FiscalError(
        "returns/not-ended",
        `The period runs to ${displayDate(end)}. It can be sealed from the day after.`,
      );
    }
    await refuseGap(work, r, end);
    const { boxes } = await boxesNow(work, r, end);
    refuseMoved(seen, boxes, digitsOf(work, r), "sealed");
    const open = (await findingsOf(work, setup, r, period, boxes)).filter(
      (finding) => finding.accepted === null,
    );
    if (open.length > 0) {
      throw new FiscalError(
        "returns/findings-open",
        `${open.length} ${open.length === 1 ? "finding is" : "findings are"} open. Put each right, or accept it with a reason.`,
      );
    }
    await freeze(work, clientId, r, end, await agreementsToKeep(work, setup, r, end));
  });
}

/** Earlier periods first: a late item could not find its period otherwise. */
async function refuseGap(work: Writing, r: RegistrationRecord, end: string): Promise<void> {
  const before = periodBefore(r, periodEnding(r, end));
  if (!before) return;
  const record = await returnRecord(work, r.id, before.to);
  const inUse = await work.row(
    "SELECT 1 FROM facts WHERE registration_id = $1 AND live = 1 AND period_end <= $2 AND NOT EXISTS (SELECT 1 FROM returns WHERE returns.registration_id = $1 AND returns.period_end = facts.period_end AND returns.state IN ('sealed', 'filed', 'settled')) LIMIT 1",
    [r.id, before.to],
  );
  if (!inUse || record?.state === "sealed" || record?.state === "filed" || record?.state === "settled")
    return;
  throw new FiscalError(
    "returns/earlier-open",
    `The period to ${displayDate(before.to)} is still open. Seal it first.`,
  );
}

/** Writes the sealed state; also used when a book file brings sealed periods. */
export async function freeze(
  work: Writing,
  clientId: number,
  r: RegistrationRecord,
  end: string,
  agreements: KeptAgreement[] | null,
): Promise<void> {
  const period = periodEnding(r, end);
  const { boxes, factCount } = await boxesNow(work, r, end);
  const kept = boxes.map(({ box, amount, exact }) => ({ box, amount, exact }));
  const hash = await sealedHash(work, r.id, end, kept);
  const change = {
    state: "sealed" as const,
    boxes: kept,
    agreements,
    net: figuresOf(work, r, end, boxes).net,
    facts: factCount,
    hash,
    sealedAt: work.at,
    sealedBy: work.person,
  };
  await saveReturn(work, { clientId, registrationId: r.id, periodFrom: period.from, periodEnd: end }, change);
  await work.record({
    action: "seal",
    entity: "return",
    id: r.id,
    after: { period: end, hash, net: formatAmount(change.net, digitsOf(work, r)) },
  });
}

/** Opens a sealed period again; possible until it is filed and while no later one is sealed. */
export async function reopenReturn(work: Work, clientId: number, rid: string, end: string): Promise<void> {
  await work.write(async (work) => {
    const r = registrationIn(await loadSetup(work, clientId), rid);
    const record = await returnRecord(work, r.id, end);
    if (record?.state !== "sealed") {
      throw new FiscalError(
        "returns/wrong-state",
        "Only a period that is sealed and not yet filed can be opened again.",
      );
    }
    await refuseWhileSent(work, r.id, end);
    const later = await work.row<{ end: string }>(
      `SELECT period_end AS end FROM returns WHERE registration_id = $1 AND period_end > $2
         AND state IN ('sealed', 'filed', 'settled') LIMIT 1`,
      [r.id, end],
    );
    if (later) {
      throw new FiscalError(
        "returns/wrong-state",
        `The period to ${displayDate(later.end)} is sealed on top of this one. Open that one first.`,
      );
    }
    await takeBackSeparate(work, r, end);
    await work.models.returns.update(
      {
        state: "open",
        boxes: null,
        agreements: null,
        net: null,
        facts: null,
        hash: null,
        sealedAt: null,
        sealedBy: null,
      },
      { where: { id: record.id }, ...work.options },
    );
    await work.record({
      action: "reopen",
      entity: "return",
      id: r.id,
      before: { period: end, hash: record.hash },
    });
  });
}

/** Moves a period between open and in review. */
export async function setReviewState(
  work: Work,
  clientId: number,
  rid: string,
  end: string,
  state: "open" | "in-review",
): Promise<void> {
  await work.write(async (work) => {
    const r = registrationIn(await loadSetup(work, clientId), rid);
    const period = periodEnding(r, end);
    await requireOpen(work, r.id, end);
    await saveReturn(
      work,
      { clientId, registrationId: r.id, periodFrom: period.from, periodEnd: end },
      { state },
    );
    await work.record({
      action: state,
      entity: "return",
      id: r.id,
      after: { period: end },
    });
  });
}
