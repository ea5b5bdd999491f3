import { found } from "@fiscalon/core/at";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type {
  SchemeDefinition,
  SchemeInForce,
  SchemeResult,
  SchemeStep,
  TurnoverRate,
} from "@fiscalon/core/model/scheme";
import { schemeOn, schemesOf } from "@fiscalon/core/model/scheme";
import type { Direction, Treatment } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { setAside, turnoverRateScheme } from "@fiscalon/core/schemes/turnoverRate";
import type { CapitalLine, SchemeFact } from "@fiscalon/core/schemes/turnoverRate";
import { without } from "@fiscalon/core/schemes/movementsUnder";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import {
  factGroups,
  factGroupsBetween,
  factGroupsByScheme,
  inScope,
  inSpan,
  scopeOfPeriod,
} from "./queries.ts";
import type { ReturnScope } from "./queries.ts";
import { instalmentSteps } from "./instalmentSteps.ts";
import { attributionOnReturn } from "./attributionOnReturn.ts";
import { poolOnReturn } from "./poolOnReturn.ts";
import { periodRule } from "./periodRule.ts";
import { schedulesOf } from "./schedules.ts";

/** What of the facts of a return is on it, and what schemes put there in the place of the rest. */
export interface ReturnContent {
  groups: readonly FactGroup[];
  /** All of them, also those that are set aside. */
  all: readonly FactGroup[];
  steps: readonly SchemeStep[];
  /** By how much schemes make more owed than what they set aside; minor units. */
  gain: number;
  schemes: readonly SchemeOnReturn[];
}

/** A scheme whose supplies are on a return, with its workpaper. */
export interface SchemeOnReturn {
  definition: SchemeDefinition;
  /** When it was in force, with the answers of each time. */
  spans: readonly SchemeInForce[];
  facts: readonly SchemeFact[];
  result: SchemeResult;
  setAside: readonly SetAside[];
  gain: number;
}

/** Facts of a code that are on no return because of a scheme; minor units. */
export interface SetAside {
  code: string;
  direction: Direction;
  count: number;
  net: number;
  tax: number;
  /** What of it would be deducted. */
  recoverable: number;
}

/** The facts of a period as its return holds them. */
export async function contentOfPeriod(
  work: Work,
  r: RegistrationRecord,
  end: string,
  known?: readonly FactGroup[],
): Promise<ReturnContent> {
  const content =
    r.schemes.length === 0
      ? plainContent(known ?? (await factGroups(work, r.id, end)))
      : await underSchemes(work, r, scopeOfPeriod(end));
  const paid = await instalmentSteps(work, r, end);
  return paid.length === 0 ? content : { ...content, steps: [...content.steps, ...paid] };
}

/** The same of whole periods, or of any stretch of days. */
export async function contentBetween(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
): Promise<ReturnContent> {
  if (r.schemes.length > 0) return underSchemes(work, r, scope);
  return plainContent(await factGroupsBetween(work, r.id, scope.from, scope.to, scope.by === "period_end"));
}

function plainContent(groups: readonly FactGroup[]): ReturnContent {
  return { groups, all: groups, steps: [], gain: 0, schemes: [] };
}

/** The scheme of a registration that holds on a day, by its definition. */
export function schemeOf(
  { packs }: Work,
  r: Pick<RegistrationRecord, "schemes" | "pack">,
  day: string,
): SchemeDefinition | undefined {
  const inForce = schemeOn(r.schemes, day);
  if (!inForce) return undefined;
  return found(schemesOf(packs.byId(r.pack)), ({ id }) => id === inForce.scheme, inForce.scheme);
}

async function underSchemes(work: Work, r: RegistrationRecord, scope: ReturnScope): Promise<ReturnContent> {
  const replacing = r.schemes.filter(({ scheme }) => replaces(work, r, scheme));
  const all = await factGroupsByScheme(work, r.id, scope, replacing);
  const groupsOf = (id: string | null) => all.filter(({ scheme }) => scheme === id).map(({ group }) => group);
  const groups: FactGroup[] = groupsOf(null);
  const schemes: SchemeOnReturn[] = [];
  for (const definition of schemesOf(work.packs.byId(r.pack))) {
    const spans = r.schemes.filter(({ scheme }) => scheme === definition.id);
    if (spans.length === 0) continue;
    const own = groupsOf(definition.id);
    if (own.length === 0 && !schemeOn(spans, scope.to)) continue;
    const { kept, ...scheme } = await onReturn(work, r, scope, definition, spans, own);
    groups.push(...kept);
    schemes.push(scheme);
  }
  return {
    groups,
    all: all.map(({ group }) => group),
    steps: schemes.flatMap(({ result }) => result.steps),
    gain: schemes.reduce((sum, { gain }) => sum + gain, 0),
    schemes,
  };
}

/** Whether a scheme puts something in the place of facts; others leave them all where they are. */
function replaces({ packs }: Work, r: RegistrationRecord, scheme: string): boolean {
  const definition = packs.byId(r.pack).schemes?.find(({ id }) => id === scheme);
  return definition?.rule.kind === "turnover-rate";
}

async function onReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  definition: SchemeDefinition,
  spans: readonly SchemeInForce[],
  groups: readonly FactGroup[],
): Promise<SchemeOnReturn & { kept: readonly FactGroup[] }> {
  const { rule } = definition;
  if (rule.kind === "margin-pool") {
    const result = await poolOnReturn(work, r, scope, rule, spans);
    return { definition, spans, facts: [], result, setAside: [], gain: result.owed, kept: groups };
  }
  if (rule.kind === "attribution") {
    const result = await attributionOnReturn(work, r, scope, rule, spans);
    return { definition, spans, facts: [], result, setAside: [], gain: result.owed, kept: groups };
  }
  return turnoverOnReturn(work, r, scope, { ...definition, rule }, spans, groups);
}

/** A definition whose rule is of the kind that taxes turnover. */
type TurnoverScheme = SchemeDefinition & { rule: TurnoverRate };

async function turnoverOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  definition: TurnoverScheme,
  spans: readonly SchemeInForce[],
  groups: readonly FactGroup[],
): Promise<SchemeOnReturn & { kept: FactGroup[] }> {
  const { rule } = definition;
  const facts = await schemeFacts(work, r, scope, definition, spans);
  const current = scope.by === "period_end" && schemeOn(spans, scope.to) ? scope.to : null;
  const result = turnoverRateScheme(rule, {
    periods: periodsOf(r, facts, current),
    current,
    schemes: spans,
    registered: r.validFrom,
    facts,
    capital: await capitalLines(work, r, scope, definition, spans),
    schedules: await schedulesOf(work, r),
    digits: minorDigits(work.packs.byId(r.pack).currency),
  });
  const treatments = new Map<string, Treatment>(facts.map(({ code, treatment }) => [code, treatment]));
  const aside: SetAside[] = [];
  const kept = groups.flatMap((group): FactGroup[] => {
    const treatment = treatments.get(group.code);
    if (treatment === undefined) return [group];
    const way = setAside(rule, { ...group, treatment });
    if (way === "nothing") return [group];
    const { code, direction, count, net, tax, recoverable } = group;
    aside.push({ code, direction, count, net, tax: way === "all" ? tax : 0, recoverable });
    // An import under a scheme: what is due stays, what would be deducted does not.
    const { input, purchases } = rule.boxes;
    return way === "all" ? [] : [{ ...group, tags: without(group.tags, [input, purchases]) }];
  });
  const declared = aside.reduce(
    (sum, { direction, tax, recoverable }) => sum + (direction === "sale" ? tax : 0) - recoverable,
    0,
  );
  return { definition, spans, facts, result, setAside: aside, gain: result.owed - declared, kept };
}

/** The own periods of what is on a return, in order of time, with that of the return. */
function periodsOf(
  r: RegistrationRecord,
  facts: readonly SchemeFact[],
  current: string | null,
): FilingPeriod[] {
  const ends = new Set([
    ...facts.filter(({ reported }) => reported).map(({ ownEnd }) => ownEnd),
    ...(current === null ? [] : [current]),
  ]);
  return [...ends].sort().flatMap((end) => filingPeriodOn(periodRule(r), end) ?? []);
}

/** What a scheme is worked out from: what it holds of a return, and what else was in the own periods of that. */
async function schemeFacts(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { levy }: SchemeDefinition,
  spans: readonly SchemeInForce[],
): Promise<SchemeFact[]> {
  const ends = await ownEnds(work, r, scope);
  const bind = [r.id, levy, JSON.stringify(spans), scope.from, scope.to, JSON.stringify(ends)];
  const facts = (direction: Direction, [supply, topic]: [string, string], joins: string) =>
    work.rows<Omit<SchemeFact, "reported"> & { reported: number }>(
      `SELECT f.code, f.treatment, f.direction, f.charged, ${supply} AS supply, ${topic} AS topic,
         f.tax_point AS taxPoint, f.own_end AS ownEnd, (${inScope(scope, "$4", "$5")}) AS reported,
         sum(f.net) AS net, sum(f.tax) AS tax, sum(f.recoverable) AS recoverable
       FROM (${OF_OWN_PERIODS}) f ${joins}
       WHERE f.held = 0 AND f.levy = $2 AND f.direction = '${direction}' AND ${inSpan("$3", "from", spans.length)} IS NOT NULL
       GROUP BY f.code, f.treatment, f.charged, supply, topic, f.tax_point, f.own_end, reported
       ORDER BY f.tax_point`,
      bind,
    );
  // Only of purchases it matters what they are for.
  const rows = [
    ...(await facts("sale", ["''", "NULL"], "")),
    ...(await facts(
      "purchase",
      ["coalesce(l.supply, '')", "a.topic"],
      `JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
         LEFT JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account`,
    )),
  ];
  const supplies = new Map(
    work.packs
      .byId(r.pack)
      .codes.flatMap(expandCode)
      .map(({ code, supply }) => [code, supply]),
  );
  return rows.map((row) => {
    const ofCode = supplies.get(row.code);
    const told = row.supply === "" && ofCode !== undefined && ofCode !== "both" ? ofCode : row.supply;
    return { ...row, supply: told, reported: row.reported === 1 };
  });
}

/** Facts of registration $1 whose own period is one of $6, on whatever return they are. */
const OF_OWN_PERIODS = [
  "period_end IN (SELECT value FROM json_each($6))",
  "late = 1 AND period_end NOT IN (SELECT value FROM json_each($6))",
]
  .map(
    (
      where,
    ) => `SELECT client_id, document_id, line, levy, code, treatment, direction, charged, held, net, tax, recoverable,
      tax_point, own_end, period_end FROM facts
    WHERE registration_id = $1 AND live = 1 AND own_end IN (SELECT value FROM json_each($6)) AND ${where}`,
  )
  .join(" UNION ALL ");

/** The own periods of what is in a scope. */
async function ownEnds(work: Work, r: RegistrationRecord, scope: ReturnScope): Promise<string[]> {
  const rows = await work.rows<{ end: string }>(
    `SELECT DISTINCT f.own_end AS end FROM facts f
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND ${inScope(scope, "$2", "$3")}`,
    [r.id, scope.from, scope.to],
  );
  return rows.map(({ end }) => end);
}

async function capitalLines(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { rule, levy }: TurnoverScheme,
  spans: readonly SchemeInForce[],
): Promise<CapitalLine[]> {
  return work.rows<CapitalLine>(
    `SELECT f.code, f.document_id AS document, d.number, f.line, sum(f.net) AS net, sum(f.tax) AS tax,
       sum(f.recoverable) AS recoverable, sum(sum(f.net + f.tax)) OVER (PARTITION BY f.document_id) AS purchase
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.levy = $2
       AND ${inSpan("$3", "from", spans.length)} IS NOT NULL AND ${inScope(scope, "$4", "$5")}
       AND f.code IN (SELECT value FROM json_each($6))
     GROUP BY f.code, f.document_id, f.line ORDER BY f.document_id, f.line`,
    [r.id, levy, JSON.stringify(spans), scope.from, scope.to, JSON.stringify(rule.capital?.codes ?? [])],
  );
}
