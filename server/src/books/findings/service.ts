import { createHash } from "node:crypto";
import { boundedFindings } from "@fiscalon/core/findings/boundedFindings";
import { addDays, addMonths, endOfMonth } from "@fiscalon/core/calendar/date";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { CHECKS } from "@fiscalon/core/findings/catalogue";
import type { CheckedLine } from "@fiscalon/core/findings/checkedLine";
import { groupBy } from "@fiscalon/core/groupBy";
import { owedBy } from "@fiscalon/core/returns/unpaid";
import { assetPurchase, isDeductedAsset, setAside } from "@fiscalon/core/schemes/turnoverRate";
import type { CheckId } from "@fiscalon/core/findings/catalogue";
import { turnoverLimit } from "@fiscalon/core/findings/limitFindings";
import { periodFindings, sourceOf } from "@fiscalon/core/findings/periodFindings";
import type { PeriodContext, PeriodRows, SoldInYears } from "@fiscalon/core/findings/periodRows";
import { boxTags } from "@fiscalon/core/model/boxTags";
import type { CheckDefinition, Finding } from "@fiscalon/core/model/finding";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { basisOn, WAITING } from "@fiscalon/core/model/basis";
import { findBox } from "@fiscalon/core/returns/findBox";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { regionOf } from "@fiscalon/core/supply/regions";
import { NUMBERED_KINDS } from "@fiscalon/contract/series";
import type { FindingView } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { evaluated, formOf } from "../returns/evaluation.ts";
import { schedulesOf } from "../returns/schedules.ts";
import { contentOfPeriod, schemesAt } from "../returns/schemes.ts";
import { correctionsOf, lateDocuments } from "../returns/late.ts";
import { adjustmentsOf, factGroups } from "../returns/queries.ts";
import { apartFromLedger } from "../settlement/closingEntry.ts";
import { unpaidDocuments, unpaidRules } from "../unpaid/unpaidItems.ts";
import { seriesGaps } from "../series.ts";
import { agreementRests } from "./agreementRests.ts";
import { averagePrices } from "./averagePrices.ts";
import { distanceSales, soldWithCodes } from "./soldInYears.ts";
import { capitalGaps } from "./capitalGaps.ts";
import { schemeLines } from "./schemeLines.ts";
import { soldPieces } from "./soldPieces.ts";
import { undecidedStatements } from "./undecidedStatements.ts";
import { turnoverGaps } from "./turnoverGaps.ts";
import { yearEnds } from "./yearEnds.ts";
import {
  checkedLines,
  incomeBetween,
  twinPurchases,
  unallocatedPayments,
  uncodedLines,
  unregisteredDocuments,
} from "./queries.ts";

/** Claims of up to 250.00 go without a look at the supplier's number where the pack does not say otherwise. */
const USUAL_CLAIM = 250;

/** Runs every check on a period; what was accepted before keeps its reason. In the order of the catalogue. */
export function findingsOf(
  work: Work,
  setup: ClientSetup,
  registration: RegistrationRecord,
  period: FilingPeriod,
  boxes: readonly BoxResult[],
): Promise<FindingView[]> {
  return work.remembered("findings", [registration, period], (work) =>
    found(work, setup, registration, period, boxes),
  );
}

async function found(
  work: Work,
  setup: ClientSetup,
  registration: RegistrationRecord,
  period: FilingPeriod,
  boxes: readonly BoxResult[],
): Promise<FindingView[]> {
  const pack = work.packs.byId(registration.pack);
  const { digits, accounts, places } = setup.plain;
  const context: PeriodContext = {
    pack,
    form: formOf(work, registration, period.to),
    digits,
    numberAbove: pack.claims?.numberAbove ?? USUAL_CLAIM * 10 ** digits,
    client: setup.client.name,
    levies: registration.levies,
    basis: basisOn(registration, period.to),
    accounts,
    boxes,
    treatmentOf: (code) => setup.effect.codes.get(code)?.treatment,
    sharesInput: schemesAt(work, registration, period.to).some(({ rule }) => rule.kind === "attribution"),
    regions: places.map(({ country, region }) => regionOf(work.packs.ofCountry(country), region, null)),
  };
  const rows = await rowsOf(work, setup, registration, period, context);
  const bounded = boundedFindings(periodFindings(rows, context), fingerprintOf);
  return withAcceptances(work, registration, period, pack, bounded);
}

/** Signs of a hash that tell one list of findings from another. */
const SIGNS = 16;

function fingerprintOf(keys: readonly string[]): string {
  return createHash("sha256").update(JSON.stringify(keys)).digest("base64url").slice(0, SIGNS);
}

async function rowsOf(
  work: Work,
  setup: ClientSetup,
  registration: RegistrationRecord,
  period: FilingPeriod,
  context: PeriodContext,
): Promise<PeriodRows> {
  const { client } = setup;
  // What no registration covers shows up in the nearest period: before the first, or after the last.
  const from = period.from === registration.validFrom ? "0000-01-01" : period.from;
  const to = period.to === registration.validTo ? "9999-12-31" : period.to;
  const groups = await factGroups(work, registration.id, period.to);
  const tags = new Set(groups.map((group) => group.tags));
  const used = new Set(groups.map(({ code }) => code));
  const stray = [...tags].filter(
    (one) => !one.includes("?") && boxTags(one).some(({ box }) => findBox(context.form, box) === undefined),
  );
  // Two at a time: whoever else asks finds a connection free.
  const [ofDocuments, ofAgreements] = await Promise.all([
    (async () => ({
      lines: undeducted(
        work,
        registration,
        await checkedLines(work, registration.id, period.to, context, stray),
      ),
      uncoded: await uncodedLines(work, client.id, period.from, period.to),
      unregistered: await unregisteredDocuments(work, client.id, from, to),
      unallocated:
        WAITING[context.basis].length === 0
          ? []
          : await unallocatedPayments(work, client.id, period, context.basis),
      twins: await twinPurchases(work, client.id, registration.id, period.to),
      gaps: (await seriesGaps(work, client.id, period.from, period.to)).map((gap) => ({
        ...gap,
        series: NUMBERED_KINDS[gap.kind].name,
      })),
      late: await correctionsOf(
        work,
        registration,
        period.to,
        context.boxes,
        await lateDocuments(work, registration.id, period.to),
      ),
      apart: await apartFromLedger(work, registration, period.to, context.boxes, groups),
      schemeIncome: await schemeIncome(work, registration, period),
      schemeLines: await schemeLines(work, registration, period, used),
      averagePrices: await averagePrices(work, registration, period, context),
      soldPieces: await soldPieces(work, setup, registration, period),
    }))(),
    (async () => ({
      withoutCause: await turnoverGaps(work, registration, period),
      agreementRests: await agreementRests(work, setup, registration, period),
      undecided: await undecidedStatements(work, registration, period),
      yearEnd: await yearEnds(work, registration, period),
      ...(await capitalGaps(work, registration, period, used)),
      unpaid: await unpaidAsked(work, registration, period),
      sold: await soldByCheck(work, client.id, context.pack, period.to),
      distanceSales: await distanceSales(work, registration, context.pack, period),
      yearBefore: await boxesOfYearBefore(work, registration, period),
    }))(),
  ]);
  return { ...ofDocuments, ...ofAgreements };
}

/** Lines as the return has them: what a scheme sets aside deducts nothing. */
function undeducted(
  work: Work,
  registration: RegistrationRecord,
  lines: readonly CheckedLine[],
): readonly CheckedLine[] {
  if (registration.schemes.length === 0) return lines;
  const byDocument = groupBy(lines, ({ document }) => document);
  return lines.map((line) => {
    const own = schemesAt(work, registration, line.taxPoint).filter(({ levies }) =>
      levies.includes(line.levy),
    );
    const rule = own.map((one) => one.rule).find((one) => one.kind === "turnover-rate");
    if (!rule || line.direction === "sale" || setAside(rule, line) === "nothing") return line;
    const purchase = assetPurchase(rule, byDocument.get(line.document) ?? [line]);
    return isDeductedAsset(rule, line.code, purchase) ? line : { ...line, recoverable: 0 };
  });
}

async function schemeIncome(
  work: Work,
  registration: RegistrationRecord,
  period: FilingPeriod,
): Promise<PeriodRows["schemeIncome"]> {
  const from = addMonths(addDays(period.to, 1), -12);
  for (const { rule, name } of schemesAt(work, registration, period.to)) {
    if (rule.kind !== "turnover-rate" || !rule.leaving) continue;
    const income = await incomeBetween(work, registration.id, from, period.to, rule.takes);
    return { scheme: name, income, above: rule.leaving.above };
  }
  return null;
}

async function unpaidAsked(
  work: Work,
  registration: RegistrationRecord,
  period: FilingPeriod,
): Promise<PeriodRows["unpaid"]> {
  const asked = [];
  for (const rule of unpaidRules(work, registration, period)) {
    if (rule.claimed) continue;
    const documents = await unpaidDocuments(work, registration, rule, period);
    const owed = documents.reduce((sum, { proposal }) => sum + owedBy(rule, proposal), 0);
    asked.push({ name: rule.name, count: documents.length, owed, says: rule.says });
  }
  return asked;
}

async function soldByCheck(
  work: Work,
  clientId: number,
  { checks = [] }: JurisdictionPack,
  to: string,
): Promise<PeriodRows["sold"]> {
  const sold = new Map<string, SoldInYears>();
  for (const check of checks) {
    const limit = check.kind === "turnover" ? turnoverLimit(check.limits, Number(to.slice(0, 4))) : undefined;
    if (check.kind === "turnover" && limit)
      sold.set(check.id, await soldWithCodes(work, clientId, check.codes, to, limit.year));
  }
  return sold;
}

async function boxesOfYearBefore(
  work: Work,
  registration: RegistrationRecord,
  { to }: FilingPeriod,
): Promise<BoxResult[]> {
  const lastYear = endOfMonth(addMonths(to, -12));
  const groups = await factGroups(work, registration.id, lastYear);
  if (groups.length === 0) return [];
  return evaluated(work, await schedulesOf(work, registration), registration, lastYear, {
    ...(await contentOfPeriod(work, registration, lastYear, groups)),
    adjustments: await adjustmentsOf(work, registration.id, lastYear),
  });
}

async function withAcceptances(
  work: Work,
  registration: RegistrationRecord,
  period: FilingPeriod,
  pack: JurisdictionPack,
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
    return { ...one, title, source: sourceOf(check, pack), accepted: byKey.get(one.key) ?? null };
  });
}
