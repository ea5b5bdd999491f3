import { addMonths, endOfMonth } from "@fiscalon/core/calendar/date";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { basisOn } from "@fiscalon/core/model/registration";
import { CHECKS, documentKey, finding } from "@fiscalon/core/findings/catalogue";
import type { CheckId } from "@fiscalon/core/findings/catalogue";
import type { CheckDefinition, Finding } from "@fiscalon/core/model/finding";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { missingRoles } from "@fiscalon/core/model/account";
import { displayAmount } from "@fiscalon/core/money/amount";
import { correctionWay } from "@fiscalon/core/returns/correctionWay";
import { brokenRules } from "@fiscalon/core/returns/evaluateReturn";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { NUMBERED_KINDS } from "@fiscalon/contract/series";
import type { FindingView } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { seriesGaps } from "../series.ts";
import { evaluated, formOf } from "../returns/evaluation.ts";
import { adjustmentsOf, factGroups, lateGroups } from "../returns/queries.ts";
import { judged, LINE_CHECKS } from "./checks.ts";
import type { CheckContext } from "./checks.ts";
import {
  candidateLines,
  twinPurchases,
  unallocatedPayments,
  uncodedLines,
  unregisteredDocuments,
} from "./queries.ts";

interface Scope {
  work: Work;
  setup: ClientSetup;
  registration: RegistrationRecord;
  period: FilingPeriod;
  boxes: readonly BoxResult[];
  context: CheckContext;
}

/** Runs every check on a period; what was accepted before keeps its reason. In the order of the catalogue. */
export async function findingsOf(
  work: Work,
  setup: ClientSetup,
  registration: RegistrationRecord,
  period: FilingPeriod,
  boxes: readonly BoxResult[],
): Promise<FindingView[]> {
  const pack = work.packs.byId(registration.pack);
  const context: CheckContext = { pack, digits: setup.plain.digits, from: period.from };
  const scope: Scope = { work, setup, registration, period, boxes, context };
  const found = [
    ...arithmetic(scope),
    ...(await uncoded(scope)),
    ...setUp(scope),
    ...(await unallocated(scope)),
    ...(await unregistered(scope)),
    ...(await lineFindings(scope)),
    ...(await duplicates(scope)),
    ...(await gapsInSeries(scope)),
    ...(await lateItems(scope)),
    ...wholeReturn(scope),
    ...(await unusual(scope)),
  ];
  const order = Object.keys(CHECKS);
  found.sort((a, b) => order.indexOf(a.check) - order.indexOf(b.check));
  return withAcceptances(scope, found);
}

/** Where the rule of a check stands: in the law of the place, in its rule for late items, or nowhere. */
function sourceOf(check: CheckId, { claims, correction }: JurisdictionPack): string {
  const { source }: CheckDefinition = CHECKS[check];
  const law = claims?.sources[check] ?? (check === "late-item" ? correction.source : "");
  return law || (source ?? "common practice, no source");
}

async function withAcceptances(
  { work, registration, period, context }: Scope,
  found: readonly Finding[],
): Promise<FindingView[]> {
  const accepted = await work.rows<{ key: string; reason: string; by: string; at: string }>(
    `SELECT a.key, a.reason, p.name AS "by", a.created_at AS at FROM acceptances a JOIN people p ON p.id = a.created_by
     WHERE a.registration_id = $1 AND a.period_end = $2`,
    [registration.id, period.to],
  );
  const byKey = new Map(accepted.map(({ key, ...rest }) => [key, rest]));
  return found.map((one) => {
    const check = one.check as CheckId;
    const { title }: CheckDefinition = CHECKS[check];
    return { ...one, title, source: sourceOf(check, context.pack), accepted: byKey.get(one.key) ?? null };
  });
}

/** The rules of the authority for the boxes. */
function arithmetic({ work, boxes, registration, period, context }: Scope): Finding[] {
  const form = formOf(work, registration, period.to);
  return brokenRules(form, boxes, context.digits).map((says) => finding("arithmetic", [says], says));
}

/** What is missing in the set-up of the registration. */
function setUp({ setup, registration, context: { pack } }: Scope): Finding[] {
  const accounts = registration.levies.flatMap((levy) => {
    const deducted = pack.levies.find((one) => one.levy === levy)?.deducted ?? false;
    return missingRoles(setup.plain.accounts, levy, deducted).map((role) =>
      finding(
        "no-account",
        [levy, role],
        `No account is set for ${role.replaceAll("-", " ")} of ${levy}. Choose one under Set up, Accounts.`,
      ),
    );
  });
  return accounts;
}

/** On the cash basis, money that is not allocated to documents is on no return, although tax may be due on it. */
async function unallocated({ work, setup, registration, period, context }: Scope): Promise<Finding[]> {
  const basis = basisOn(registration, period.to);
  if (basis === "accrual") return [];
  const kinds = basis === "cash" ? ["receipt", "payment"] : ["payment"];
  const payments = await unallocatedPayments(work, setup.client.id, period.from, period.to, kinds);
  return payments.map((one) =>
    finding(
      "unallocated",
      [`payment/${one.payment}`],
      `${one.number}, ${one.party}: ${displayAmount(one.amount, context.digits)} is allocated to no document, so nothing is reported for it. Allocate it under Books, Payments.`,
    ),
  );
}

async function uncoded({ work, setup, period, context }: Scope): Promise<Finding[]> {
  const lines = await uncodedLines(work, setup.client.id, period.from, period.to);
  return lines.map((line) =>
    finding(
      "no-code",
      [documentKey(line.document), line.line],
      `${line.number}, ${line.party}: line ${line.line} of ${displayAmount(line.net, context.digits)} has no tax code, so it is on no return.`,
      line,
    ),
  );
}

/** What no registration covers shows up in the nearest period: before the first, or after the last. */
async function unregistered({ work, setup, registration, period }: Scope): Promise<Finding[]> {
  const from = period.from === registration.validFrom ? "0000-01-01" : period.from;
  const to = period.to === registration.validTo ? "9999-12-31" : period.to;
  const documents = await unregisteredDocuments(work, setup.client.id, from, to);
  return documents.map((d) =>
    finding(
      "no-registration",
      [documentKey(d.document)],
      `${d.number}: no ${d.levy} registration is in force on ${d.taxPoint}, so it is on no return. Right if it was supplied before or after the registration; otherwise correct the tax point.`,
      d,
    ),
  );
}

async function lineFindings({ work, registration, period, context }: Scope): Promise<Finding[]> {
  const found: Finding[] = [];
  for (const check of LINE_CHECKS) {
    if (check.packs && !check.packs.includes(registration.pack)) continue;
    const more = check.parameter ? [check.parameter(context)] : [];
    const lines = await candidateLines(work, registration.id, period.to, check.condition, more);
    found.push(...judged(check, lines, context));
  }
  // A line that is paid in parts has a fact for each; it is one finding all the same.
  return [...new Map(found.map((one) => [one.key, one])).values()];
}

async function duplicates({ work, setup, registration, period, context }: Scope): Promise<Finding[]> {
  const twins = await twinPurchases(work, setup.client.id, registration.id, period.to);
  return twins.map((twin) =>
    finding(
      "duplicate",
      [documentKey(twin.second), documentKey(twin.first)],
      twin.sameNumber === 1
        ? `${twin.party}: number ${twin.number} is in the books twice.`
        : `${twin.party}: ${twin.number} and ${twin.otherNumber} have the same date and the same total of ${displayAmount(twin.gross, context.digits)}.`,
      { document: twin.second },
    ),
  );
}

/** Invoices are numbered without gaps; a number nobody holds may be a sale nobody reported. */
async function gapsInSeries({ work, setup, period }: Scope): Promise<Finding[]> {
  const gaps = await seriesGaps(work, setup.client.id, period.from, period.to);
  return gaps.map(({ kind, first, count, after, before }) =>
    finding(
      "series-gap",
      [kind, first],
      `${NUMBERED_KINDS[kind].name}: ${count === 1 ? `${first} is` : `${count} numbers from ${first} on are`} missing between ${after} and ${before}. Enter what was issued under ${count === 1 ? "it" : "them"}, or say what became of ${count === 1 ? "it" : "them"}.`,
    ),
  );
}

async function lateItems({ work, registration, period, boxes, context }: Scope): Promise<Finding[]> {
  const groups = await lateGroups(work, registration.id, period.to);
  if (groups.length === 0) return [];
  const { correction } = context.pack;
  const net = groups.reduce((sum, group) => sum + group.output - group.input, 0);
  const turnover = boxes.find((box) => box.box === correction.turnoverBox)?.amount ?? 0;
  const { way, reason } = correctionWay(net, turnover, correction, context.digits);
  const rule =
    way === "on-return" ? "may be on this return" : "must be disclosed separately, not on this return";
  return groups.map((group) =>
    finding(
      "late-item",
      [group.period, group.count],
      `${group.count} late ${group.count === 1 ? "document" : "documents"} of the period to ${group.period}: output tax ${displayAmount(group.output, context.digits)}, input tax ${displayAmount(group.input, context.digits)}. If they are errors, they ${rule}: ${reason}.`,
    ),
  );
}

/** Checks that look at the return as a whole. */
function wholeReturn({ boxes, setup, registration, context }: Scope): Finding[] {
  const found: Finding[] = [];
  const parts = boxes.flatMap((box) => box.contributions.map((part) => ({ box: box.box, part })));
  const unionBoxes = ["2", "8", "9"].filter((id) =>
    parts.some(({ box, part }) => box === id && part.kind === "facts"),
  );
  if (registration.pack === "gb" && unionBoxes.length > 0) {
    found.push(
      finding(
        "northern-ireland",
        unionBoxes,
        `Boxes ${unionBoxes.join(", ")} hold goods between Northern Ireland and the EU. Accept if ${setup.client.name} trades from Northern Ireland; otherwise use the export and import codes.`,
      ),
    );
  }
  const exempt = parts.find(
    ({ part }) =>
      part.kind === "facts" &&
      part.direction === "sale" &&
      setup.effect.codes.get(part.code)?.treatment === "exempt",
  );
  if (exempt) {
    found.push(
      finding(
        "exempt-sales",
        [],
        `There are exempt sales of ${displayAmount(exempt.part.amount, context.digits)}. Input tax that belongs to them is deducted only as far as the law allows, such as within de minimis limits.`,
      ),
    );
  }
  return found;
}

/** Boxes watched from year to year: turnover and input tax, by form. */
const WATCHED: Readonly<Record<string, readonly string[]>> = {
  gb: ["4", "6"],
  ie: ["T1", "T2"],
  ca: ["101", "106", "BC.A"],
  au: ["G1", "1B"],
  nz: ["5", "11"],
  sg: ["1", "7"],
  in: ["3.1a.txval", "4A5.igst"],
  ae: ["8.a", "9.v"],
  za: ["1", "15"],
  "eu-de": ["81", "66"],
  us: ["G1"],
};

/** Boxes that moved by more than a quarter against the same period a year before. */
async function unusual({ work, registration, period, boxes, context }: Scope): Promise<Finding[]> {
  const lastYear = endOfMonth(addMonths(period.to, -12));
  const groups = await factGroups(work, registration.id, lastYear);
  if (groups.length === 0) return [];
  const before = evaluated(
    work,
    registration,
    lastYear,
    groups,
    await adjustmentsOf(work, registration.id, lastYear),
  );
  return (WATCHED[registration.pack] ?? []).flatMap((id) => {
    const [then, now] = [before, boxes].map((list) => list.find((box) => box.box === id)?.amount ?? 0);
    if (then === undefined || now === undefined || then <= 0 || Math.abs(now - then) * 4 <= then) return [];
    const change = Math.round(((now - then) * 100) / then);
    return [
      finding(
        "unusual",
        [id],
        `Box ${id} is ${displayAmount(now, context.digits)}, ${Math.abs(change)} % ${change > 0 ? "more" : "less"} than a year before (${displayAmount(then, context.digits)}).`,
      ),
    ];
  });
}
