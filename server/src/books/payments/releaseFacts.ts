import { found } from "@fiscalon/core/at";
import {
  cashReleases,
  endOfWaiting,
  NOTHING_RELEASED,
  paidShare,
  RELEASED_FIGURES,
  turnToPayment,
  waitsForPayment,
} from "@fiscalon/core/facts/cashBasis";
import type {
  Release,
  ReleasedFigures,
  SettledPart,
  Turn,
  WaitingDocument,
} from "@fiscalon/core/facts/cashBasis";
import { basisOffer } from "@fiscalon/core/model/basis";
import type { BoxesBySide } from "@fiscalon/core/model/basis";
import { assignPeriod } from "@fiscalon/core/facts/assignPeriod";
import type { RegistrationSetup } from "@fiscalon/core/model/registration";
import type { Component, Direction, Treatment } from "@fiscalon/core/model/taxCode";
import type { Work, Writing } from "../../base/work.ts";
import { bringReleaseEntries } from "../credit/releaseEntries.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import type { ClientSetup } from "../loadSetup.ts";

/** Documents that are held in memory at once, however many there are. */
const SLICE = 1000;

/** Columns a released fact takes over from the one that waits. */
const SAME = [
  "document_id",
  "line",
  "levy",
  "code",
  "treatment",
  "rate",
  "direction",
  "charged",
  "credit",
  "use",
];

/** A fact that is reported, or reported again, as its document is paid. */
interface FollowingRow extends ReleasedFigures, WaitingDocument {
  id: number;
  registration: number;
  document: number;
  code: string;
  direction: Direction;
  charged: Component["charged"];
  treatment: Treatment;
  taxPoint: string;
  held: number;
  /** The hold under which its credit waits, and the day from which it does no more. */
  awaits: string | null;
  released: string | null;
  tags: string;
  toPay: number;
}
interface KeptRow extends ReleasedFigures {
  held: number;
  payment: number | null;
  on: string;
}
interface PartRow extends SettledPart {
  document: number;
}

/**
 * Brings what payments make reportable in line with the payments as they are now, for documents whose facts wait for
 * them. What sealed periods hold stays; everything else is worked out anew.
 */
export async function releaseFacts(
  work: Writing,
  setup: ClientSetup,
  documentIds: readonly number[],
): Promise<void> {
  for (let from = 0; from < documentIds.length; from += SLICE)
    await releaseSlice(work, setup, documentIds.slice(from, from + SLICE));
}

async function releaseSlice(
  work: Writing,
  setup: ClientSetup,
  documentIds: readonly number[],
): Promise<void> {
  const ids: [string] = [JSON.stringify(documentIds)];
  const following = await followingFacts(work, setup, ids);
  const kept = groupBy(await keptReleases(work, ids), (row) => row.held);
  await endOpenReleases(work, ids);
  const parts = groupBy(await settledParts(work, ids), (part) => part.document);
  const rows = following.flatMap((fact) =>
    releaseRows(fact, kept.get(fact.id) ?? [], parts.get(fact.document) ?? [], setup, work),
  );
  if (rows.length > 0) await insertReleases(work, rows);
  await bringReleaseEntries(work, setup, ids);
}

/** Documents of a registration that payments may make reportable, or that did so before it changed. */
export async function followingDocuments(
  work: Work,
  setup: ClientSetup,
  registration: number,
): Promise<number[]> {
  const turns = turningRegistrations(work, setup).includes(registration);
  const rows = await work.rows<{ id: number }>(
    `SELECT DISTINCT document_id AS id FROM facts WHERE registration_id = $1 AND live = 1
       AND (held = 1 OR release_of IS NOT NULL OR $2 = 1)`,
    [registration, turns ? 1 : 0],
  );
  return rows.map(({ id }) => id);
}

/** Registrations that at some time took back what was unpaid, to report it as paid. */
export function turningRegistrations({ packs }: Work, { effect }: ClientSetup): number[] {
  return effect.registrations
    .filter(({ pack, changes = [] }) =>
      changes.some(
        ({ basis }) => basis !== undefined && basisOffer(packs.byId(pack).bases, basis).joining !== undefined,
      ),
    )
    .map(({ id }) => id);
}

/** Facts that wait for payment, and those a registration took back when it joined a basis that waits. */
async function followingFacts(work: Writing, setup: ClientSetup, ids: [string]): Promise<FollowingRow[]> {
  const turning = turningRegistrations(work, setup);
  const rows = await work.rows<FollowingRow>(
    `SELECT f.id, f.registration_id AS registration, f.document_id AS document, f.code, f.direction, f.charged, f.treatment,
       f.tax_point AS taxPoint, f.held, f.awaits, f.tags, f.net, f.tax, f.calculated, f.recoverable, f.base,
       d.kind, d.gross, coalesce(d.foreign_gross, d.gross) AS toPay, c.released_on AS released
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN credit_releases c ON c.document_id = f.document_id
     WHERE f.document_id IN (SELECT value FROM json_each($1)) AND f.live = 1 AND (f.held = 1
       OR (f.release_of IS NULL AND f.registration_id IN (SELECT value FROM json_each($2))))`,
    [...ids, JSON.stringify(turning)],
  );
  return rows.filter((fact) => fact.held === 1 || turnOf(fact, registrationOf(fact, setup), work) !== null);
}

function turnOf(fact: FollowingRow, registration: RegistrationSetup, work: Work): Turn | null {
  return turnToPayment(registration, fact, fact, work.packs.byId(registration.pack).bases);
}

function registrationOf(fact: FollowingRow, setup: ClientSetup): RegistrationSetup {
  return found(
    setup.effect.registrations,
    ({ id }) => id === fact.registration,
    `registration ${fact.registration}`,
  );
}

/** Releases that sealed periods hold. */
async function keptReleases(work: Writing, ids: [string]): Promise<KeptRow[]> {
  return work.rows<KeptRow>(
    `SELECT f.release_of AS held, f.payment_id AS payment, f.tax_point AS "on", f.net, f.tax, f.calculated, f.recoverable, f.base
     FROM facts f JOIN returns r ON r.registration_id = f.registration_id AND r.period_end = f.period_end
       AND r.state IN ('sealed', 'filed', 'settled')
     WHERE f.document_id IN (SELECT value FROM json_each($1)) AND f.live = 1 AND f.release_of IS NOT NULL`,
    ids,
  );
}

async function endOpenReleases(work: Writing, ids: [string]): Promise<void> {
  await work.run(
    `UPDATE facts SET live = 0 WHERE document_id IN (SELECT value FROM json_each($1)) AND live = 1
       AND release_of IS NOT NULL AND NOT EXISTS (SELECT 1 FROM returns r WHERE r.registration_id = facts.registration_id
         AND r.period_end = facts.period_end AND r.state IN ('sealed', 'filed', 'settled'))`,
    ids,
  );
}

async function settledParts(work: Writing, ids: [string]): Promise<PartRow[]> {
  return work.rows<PartRow>(
    `SELECT a.document_id AS document, p.id AS payment, p.date AS "on",
       a.amount + min(a.difference, 0) AS amount, max(a.difference, 0) AS writtenOff
     FROM allocations a JOIN payments p ON p.id = a.payment_id
     WHERE a.document_id IN (SELECT value FROM json_each($1)) AND a.live = 1 ORDER BY p.date, p.id`,
    ids,
  );
}

/**
 * The new releases of one fact as rows of the table of facts, in the order of the periods they are reported in. One that
 * was taken back counts what was paid before as reported.
 */
function releaseRows(
  fact: FollowingRow,
  kept: readonly KeptRow[],
  paid: readonly PartRow[],
  setup: ClientSetup,
  work: Work,
): unknown[][] {
  const registration = registrationOf(fact, setup);
  const { bases } = work.packs.byId(registration.pack);
  const rowFor = (release: Release, boxes: BoxesBySide | undefined) =>
    releaseRow(fact, release, boxes, periodOf(release.on, registration, setup), work);
  if (fact.awaits !== null && fact.released === null) return [];
  if (fact.awaits !== null && !waitsForPayment(fact, fact, registration, bases)) {
    if (kept.length > 0) return [];
    const on = later(fact.released, fact.taxPoint);
    const whole = { ...fact, payment: null, on };
    return [rowFor(whole, undefined)];
  }
  const turn = fact.held === 1 ? null : turnOf(fact, registration, work);
  const end = endOfWaiting(
    registration,
    { code: fact.code, direction: fact.direction, taxPoint: turn?.on ?? fact.taxPoint },
    bases,
  );
  // Money counts from the day the credit waits for nothing else.
  const parts = paid.map((part) => ({ ...part, on: later(fact.released, part.on) }));
  const early = turn ? parts.filter(({ on }) => on < turn.on) : [];
  const paidBefore = {
    ...NOTHING_RELEASED,
    ...paidShare(fact, sumOf(early, "amount") + sumOf(early, "writtenOff"), fact.toPay),
    settled: sumOf(early, "amount") + sumOf(early, "writtenOff"),
  };
  const taken = turn && !kept.some(({ payment, on }) => payment === null && on === turn.on);
  const turned = taken ? [rowFor(takenBack(fact, paidBefore, turn), turn.boxes)] : [];
  if (end && kept.some(({ payment, on }) => payment === null && on === end.on)) return turned;
  const counted = new Set(kept.map(({ payment }) => payment));
  const since = turn ? parts.filter(({ on }) => on >= turn.on) : parts;
  const open = since.filter(({ payment }) => !counted.has(payment));
  const before = since.filter(({ payment }) => counted.has(payment));
  const reported = kept
    .filter(({ payment }) => payment !== null)
    .reduce((sum, one) => added(sum, one), {
      ...paidBefore,
      settled: paidBefore.settled + sumOf(before, "amount"),
      writtenOff: paidBefore.writtenOff + sumOf(before, "writtenOff"),
    });
  const inOrder = open
    .map((part) => ({ part, reportedTo: periodOf(part.on, registration, setup)?.reported.to ?? "" }))
    .sort((a, b) => (a.reportedTo < b.reportedTo ? -1 : a.reportedTo > b.reportedTo ? 1 : 0))
    .map(({ part }) => part);
  const released = cashReleases(fact, fact.toPay, inOrder, reported, end);
  return [
    ...turned,
    ...released.map((release) => rowFor(release, release.payment === null ? end?.boxes : undefined)),
  ];
}

/** The later of two days, where the first is known. */
function later(one: string | null, other: string): string {
  return one !== null && one > other ? one : other;
}

function sumOf(parts: readonly SettledPart[], figure: "amount" | "writtenOff"): number {
  return parts.reduce((sum, part) => sum + part[figure], 0);
}

/** What a turn takes back of a fact: all that was not paid before. */
function takenBack(fact: ReleasedFigures, paid: ReleasedFigures, turn: Turn): Release {
  const release: Release = { payment: null, on: turn.on, ...paid };
  for (const name of RELEASED_FIGURES) release[name] = paid[name] - fact[name] || 0;
  return release;
}

function added<T extends ReleasedFigures>(sum: T, one: ReleasedFigures): T {
  const next = { ...sum };
  for (const name of RELEASED_FIGURES) next[name] = sum[name] + one[name];
  return next;
}

function periodOf(on: string, registration: RegistrationSetup, setup: ClientSetup) {
  return assignPeriod(registration, on, setup.effect.sealed.get(registration.id) ?? new Set());
}

function releaseRow(
  fact: FollowingRow,
  release: Release,
  boxes: BoxesBySide | undefined,
  period: ReturnType<typeof periodOf>,
  work: Work,
): unknown[] {
  const figures = RELEASED_FIGURES.map((name) => release[name]);
  const dates = [release.on, period?.own.to ?? null, period?.reported.to ?? null, period?.late ? 1 : 0];
  return [fact.id, release.payment, ...figures, boxes?.[fact.direction] ?? fact.tags, ...dates, work.at];
}

async function insertReleases(work: Writing, rows: readonly unknown[][]): Promise<void> {
  const columns = SAME.map((name) => `f.${name}`).join(", ");
  await work.run(
    `INSERT INTO facts (client_id, registration_id, release_of, payment_id, ${RELEASED_FIGURES.join(", ")},
       tags, tax_point, own_end, period_end, late, created_at, ${SAME.join(", ")})
     SELECT f.client_id, f.registration_id, f.id, ${Array.from({ length: 12 }, (_, at) => `t.value ->> ${at + 1}`).join(", ")}, ${columns}
     FROM json_each($1) t JOIN facts f ON f.id = t.value ->> 0`,
    [JSON.stringify(rows)],
  );
}
