import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { isDeepStrictEqual } from "node:util";
import type { RegistrationChangeBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { addDays } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import { wayOfLeaving } from "@fiscalon/core/model/basis";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { RegistrationRecord } from "../../db/models.ts";
import type { Progress } from "../../base/progress.ts";
import type { Work, Writing } from "../../base/work.ts";
import { changedClient } from "../../books/views.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import {
  checkedChanges,
  checkedNumber,
  checkedOptions,
  offeredBasis,
  refuseBackwards,
  refuseOverlap,
} from "../../books/addRegistration.ts";
import { addMissingAccounts } from "../../books/addPackData.ts";
import { checkedSchemes } from "../../books/checkedSchemes.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { checkedOpening } from "../../books/returns/openingFigures.ts";
import { documentIds, ON_NO_SEALED_RETURN } from "../../books/documents/loadDocuments.ts";
import { followingDocuments, releaseFacts } from "../../books/payments/releaseFacts.ts";
import { recomputeDocuments } from "../../books/documents/recomputeDocuments.ts";

/**
 * Changes a registration: its number, its end, its options, and its rhythm from a day on. Documents of open periods
 * are counted anew; what is sealed must stay as it was.
 */
export async function changeRegistration(
  work: Work,
  clientId: number,
  rid: string,
  body: RegistrationChangeBody,
  progress: Progress,
): Promise<ClientView> {
  return changedClient(work, clientId, (work) => change(work, clientId, rid, body, progress));
}

async function change(
  work: Writing,
  clientId: number,
  rid: string,
  body: RegistrationChangeBody,
  progress: Progress,
): Promise<void> {
  const setup = await loadSetup(work, clientId);
  const r = registrationIn(setup, rid);
  const pack = work.packs.byId(r.pack);
  const to = body.to === undefined ? r.validTo : body.to;
  refuseBackwards({ from: r.validFrom, to });
  const changes =
    body.changes === undefined
      ? r.changes
      : checkedChanges(pack, r.levies, { from: r.validFrom, basis: r.basis, changes: body.changes });
  const lastSealed = await work.row<{ end: string | null }>(
    "SELECT max(period_end) AS end FROM returns WHERE registration_id = $1 AND state IN ('sealed', 'filed', 'settled')",
    [r.id],
  );
  refuseSealed(lastSealed?.end ?? null, to, r.changes, changes);
  refuseSealedRest(lastSealed?.end ?? null, pack, { ...r, changes }, r.changes);
  refuseSealedRest(lastSealed?.end ?? null, pack, r, changes);
  const after = {
    number: body.number === undefined ? r.number : checkedNumber(pack, body.number),
    validTo: to,
    changes,
    basis: body.basis === undefined ? r.basis : offeredBasis(pack, r.levies, body.basis),
    options: body.options === undefined ? r.options : checkedOptions(pack, body.options),
    opening: body.opening === undefined ? r.opening : checkedOpening(pack, body.opening),
    schemes:
      body.schemes === undefined
        ? r.schemes
        : checkedSchemes(pack, r.levies, { ...periodRule(r), to, changes }, body.schemes),
    rounding: body.rounding ?? r.rounding,
  };
  if (lastSealed?.end) refuseSealedSchemes(lastSealed.end, r.schemes, after.schemes);
  if (after.schemes.length > 0) await addMissingAccounts(work, clientId, pack);
  if (lastSealed?.end && !isDeepStrictEqual(after.opening, r.opening)) refuseOpening(lastSealed.end);
  if (to !== r.validTo) {
    const stretch = { pack: r.pack, region: r.region, from: r.validFrom, to };
    await refuseOverlap(work, clientId, r.levies, stretch, r.id);
  }
  await work.models.registrations.update(after, { where: { id: r.id }, ...work.options });
  await work.record({
    action: "change",
    entity: "registration",
    id: r.id,
    before: r,
    after,
  });
  const now = await loadSetup(work, clientId);
  if (isCountedAlike(setup, now, r.id)) return;
  const open = await documentIds(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id AND f.live = 1
         AND (f.registration_id = $2 OR f.registration_id IS NULL) AND coalesce(f.period_end, f.tax_point) > $3)
       AND ${ON_NO_SEALED_RETURN}`,
    [clientId, r.id, lastSealed?.end ?? ""],
  );
  await recomputeDocuments(work, now, open, progress);
  await releaseFollowing(work, setup, now, r.id);
}

/** Whether documents are counted as before: their computation knows nothing of numbers or figures brought in. */
function isCountedAlike(before: ClientSetup, now: ClientSetup, registration: number): boolean {
  const [was, is] = [before, now].map(({ effect }) =>
    effect.registrations.find(({ id }) => id === registration),
  );
  return isDeepStrictEqual(was, is);
}

/** What payments make reportable, before the change or after it. */
async function releaseFollowing(
  work: Writing,
  before: ClientSetup,
  now: ClientSetup,
  registration: number,
): Promise<void> {
  const documents = new Set([
    ...(await followingDocuments(work, before, registration)),
    ...(await followingDocuments(work, now, registration)),
  ]);
  await releaseFacts(work, now, [...documents]);
}

/** What sealed returns were worked out with stays; a scheme may end later than it was to. */
function refuseSealedSchemes(
  lastSealed: string,
  before: readonly SchemeInForce[],
  after: readonly SchemeInForce[],
): void {
  const sealed = (schemes: readonly SchemeInForce[]) =>
    schemes
      .filter(({ from }) => from <= lastSealed)
      .map(({ to, ...rest }) => ({ ...rest, to: to === null || to >= lastSealed ? null : to }));
  if (isDeepStrictEqual(sealed(before), sealed(after))) return;
  throw new FiscalError(
    "scheme/sealed",
    `Periods to ${displayDate(lastSealed)} are sealed as they are. A scheme must begin or end after that day.`,
    "schemes",
  );
}

function refuseOpening(lastSealed: string): never {
  throw new FiscalError(
    "registration/opening-sealed",
    `Periods to ${displayDate(lastSealed)} are sealed with what was brought in. Reopen them first, or put an adjustment on the next return.`,
    "opening",
  );
}

function refuseSealed(
  lastSealed: string | null,
  to: string | null,
  before: readonly { from: string }[],
  changes: readonly { from: string }[],
): void {
  if (lastSealed === null) return;
  const moved = [...before, ...changes].filter(
    (change) => !(before.some(same(change)) && changes.some(same(change))),
  );
  if ((to === null || to >= lastSealed) && moved.every((change) => change.from > lastSealed)) return;
  throw new FiscalError(
    "registration/sealed",
    `Periods to ${displayDate(lastSealed)} are sealed. A change must begin after that day.`,
    "from",
  );
}

/**
 * Leaving a basis may put what is unpaid on the return of its last day. That one must still be open when such a change
 * is made, and when one that is on record is taken back or altered.
 * @param others the changes on the other side: what stands in both is not looked at
 */
function refuseSealedRest(
  lastSealed: string | null,
  pack: JurisdictionPack,
  registration: Pick<RegistrationRecord, "basis" | "changes">,
  others: RegistrationRecord["changes"],
): void {
  for (const change of registration.changes.filter((one) => !others.some(same(one)))) {
    const lastDay = addDays(change.from, -1);
    const way = lastDay === lastSealed ? wayOfLeaving(pack.bases, registration, change) : undefined;
    if (way?.rest !== "last-day" || way.months !== undefined) continue;
    throw new FiscalError(
      "registration/rest-sealed",
      `What is unpaid belongs on the return to ${displayDate(lastDay)}, which is sealed (${way.source}). Reopen it first, or let the change begin a period later.`,
      "from",
    );
  }
}

function same(a: object): (b: object) => boolean {
  return (b) => JSON.stringify(a) === JSON.stringify(b);
}
