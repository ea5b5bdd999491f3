import { found } from "@fiscalon/core/at";
import {
  cashReleases,
  endOfWaiting,
  NOTHING_RELEASED,
  RELEASED_FIGURES,
} from "@fiscalon/core/facts/cashBasis";
import type { Release, ReleasedFigures, SettledPart } from "@fiscalon/core/facts/cashBasis";
import { assignPeriod } from "@fiscalon/core/facts/assignPeriod";
import type { RegistrationSetup } from "@fiscalon/core/model/registration";
import type { Direction } from "@fiscalon/core/model/taxCode";
import type { Work, Writing } from "../../base/work.ts";
import { groupBy } from "../../groupBy.ts";
import type { ClientSetup } from "../loadSetup.ts";

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
  "tags",
];

interface HeldRow extends ReleasedFigures {
  id: number;
  registration: number;
  document: number;
  direction: Direction;
  taxPoint: string;
  toPay: number;
}
interface KeptRow extends ReleasedFigures {
  held: number;
  payment: number | null;
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
  const ids: [string] = [JSON.stringify(documentIds)];
  const held = await work.rows<HeldRow>(
    `SELECT f.id, f.registration_id AS registration, f.document_id AS document, f.direction, f.tax_point AS taxPoint,
       f.net, f.tax, f.calculated, f.recoverable, f.base, coalesce(d.foreign_gross, d.gross) AS toPay
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.document_id IN (SELECT value FROM json_each($1)) AND f.live = 1 AND f.held = 1`,
    ids,
  );
  if (held.length === 0) return;
  const kept = groupBy(await keptReleases(work, ids), (row) => row.held);
  await endOpenReleases(work, ids);
  const parts = groupBy(await settledParts(work, ids), (part) => part.document);
  const rows = held.flatMap((fact) =>
    releaseRows(fact, kept.get(fact.id) ?? [], parts.get(fact.document) ?? [], setup, work),
  );
  await insertReleases(work, rows);
}

/** Releases that sealed periods hold. */
async function keptReleases(work: Writing, ids: [string]): Promise<KeptRow[]> {
  return work.rows<KeptRow>(
    `SELECT f.release_of AS held, f.payment_id AS payment, f.net, f.tax, f.calculated, f.recoverable, f.base
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

/** The new releases of one fact as rows of the table of facts, in the order of the periods they are reported in. */
function releaseRows(
  fact: HeldRow,
  kept: readonly KeptRow[],
  parts: readonly PartRow[],
  setup: ClientSetup,
  work: Work,
): unknown[][] {
  const registration = found(
    setup.effect.registrations,
    ({ id }) => id === fact.registration,
    `registration ${fact.registration}`,
  );
  const end = endOfWaiting(registration, fact);
  if (kept.some(({ payment }) => payment === null)) return [];
  const counted = new Set(kept.map(({ payment }) => payment));
  const open = parts.filter(({ payment }) => !counted.has(payment));
  const before = parts.filter(({ payment }) => counted.has(payment));
  const reported = kept.reduce((sum, one) => added(sum, one), {
    ...NOTHING_RELEASED,
    settled: before.reduce((sum, { amount }) => sum + amount, 0),
    writtenOff: before.reduce((sum, { writtenOff }) => sum + writtenOff, 0),
  });
  const inOrder = open
    .map((part) => ({ part, reportedTo: periodOf(part.on, registration, setup)?.reported.to ?? "" }))
    .sort((a, b) => (a.reportedTo < b.reportedTo ? -1 : a.reportedTo > b.reportedTo ? 1 : 0))
    .map(({ part }) => part);
  return cashReleases(fact, fact.toPay, inOrder, reported, end).map((release) =>
    releaseRow(fact, release, periodOf(release.on, registration, setup), work),
  );
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
  fact: HeldRow,
  release: Release,
  period: ReturnType<typeof periodOf>,
  work: Work,
): unknown[] {
  const figures = RELEASED_FIGURES.map((name) => release[name]);
  const dates = [release.on, period?.own.to ?? null, period?.reported.to ?? null, period?.late ? 1 : 0];
  return [fact.id, release.payment, ...figures, ...dates, work.at];
}

async function insertReleases(work: Writing, rows: readonly unknown[][]): Promise<void> {
  const columns = SAME.map((name) => `f.${name}`).join(", ");
  await work.run(
    `INSERT INTO facts (client_id, registration_id, release_of, payment_id, ${RELEASED_FIGURES.join(", ")},
       tax_point, own_end, period_end, late, created_at, ${SAME.join(", ")})
     SELECT f.client_id, f.registration_id, f.id, ${Array.from({ length: 11 }, (_, at) => `t.value ->> ${at + 1}`).join(", ")}, ${columns}
     FROM json_each($1) t JOIN facts f ON f.id = t.value ->> 0`,
    [JSON.stringify(rows)],
  );
}
