import { textAt } from "@fiscalon/core/at";
import { addDays, addMonths, endOfYear } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { SchemeDefinition, SchemeInForce, TurnoverRate } from "@fiscalon/core/model/scheme";
import { schemeOn } from "@fiscalon/core/model/scheme";
import type { Direction, Treatment } from "@fiscalon/core/model/taxCode";
import { parseAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { without } from "@fiscalon/core/schemes/movementsUnder";
import { isTurnover, setAside, turnoverRateScheme } from "@fiscalon/core/schemes/turnoverRate";
import type { CapitalLine, SchemeFact, SliceYear } from "@fiscalon/core/schemes/turnoverRate";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "./periodRule.ts";
import { inScope, inSpan, levySpans } from "./queries.ts";
import type { ReturnScope } from "./queries.ts";
import { schedulesOf } from "./schedules.ts";
import type { SchemeOnReturn, SetAside } from "./schemeOnReturn.ts";

/** A definition whose rule is of the kind that taxes turnover. */
export type TurnoverScheme = SchemeDefinition & { rule: TurnoverRate };

/** What a scheme that taxes turnover puts on a return in the place of facts, and the facts it leaves. */
export async function turnoverOnReturn(
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
    years: await sliceYears(work, r, scope, definition, spans, facts),
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
    // Self-assessed or at the border: what is due stays, what would be deducted does not.
    const { input, purchases } = rule.boxes;
    const off = way === "all" ? rule.drops : [input, ...(purchases === undefined ? [] : [purchases])];
    const tags = without(group.tags, off);
    return tags === "" ? [] : [{ ...group, tags }];
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
  { levies }: SchemeDefinition,
  spans: readonly SchemeInForce[],
): Promise<SchemeFact[]> {
  const ends = await ownEnds(work, r, scope);
  const times = levySpans(levies, spans);
  const bind = [r.id, JSON.stringify(ends), JSON.stringify(times), scope.from, scope.to];
  const facts = (direction: Direction, [supply, topic]: [string, string], joins: string) =>
    work.rows<Omit<SchemeFact, "reported"> & { reported: number }>(
      `SELECT f.code, f.treatment, f.direction, f.charged, f.rate, ${supply} AS supply, ${topic} AS topic,
         f.tax_point AS taxPoint, f.own_end AS ownEnd, (${inScope(scope, "$4", "$5")}) AS reported,
         sum(f.net) AS net, sum(f.tax) AS tax, sum(f.recoverable) AS recoverable
       FROM (${OF_OWN_PERIODS}) f ${joins}
       WHERE f.held = 0 AND f.direction = '${direction}' AND ${inSpan("$3", "from", times.length)} IS NOT NULL
       GROUP BY f.code, f.treatment, f.charged, f.rate, supply, topic, f.tax_point, f.own_end, reported
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

/** Facts of registration $1 whose own period is one of $2, on whatever return they are. */
const OF_OWN_PERIODS = [
  "period_end IN (SELECT value FROM json_each($2))",
  "late = 1 AND period_end NOT IN (SELECT value FROM json_each($2))",
]
  .map(
    (
      where,
    ) => `SELECT client_id, document_id, line, levy, code, treatment, direction, charged, held, rate, net, tax, recoverable,
      tax_point, own_end, period_end FROM facts
    WHERE registration_id = $1 AND live = 1 AND own_end IN (SELECT value FROM json_each($2)) AND ${where}`,
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
  { rule, levies }: TurnoverScheme,
  spans: readonly SchemeInForce[],
): Promise<CapitalLine[]> {
  const times = levySpans(levies, spans);
  return work.rows<CapitalLine>(
    `SELECT f.code, f.document_id AS document, d.number, f.line, sum(f.net) AS net, sum(f.tax) AS tax,
       sum(f.recoverable) AS recoverable, sum(sum(f.net + f.tax)) OVER (PARTITION BY f.document_id) AS purchase
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.direction = 'purchase'
       AND ${inSpan("$2", "from", times.length)} IS NOT NULL AND ${inScope(scope, "$3", "$4")}
       AND f.code IN (SELECT value FROM json_each($5))
     GROUP BY f.code, f.document_id, f.line ORDER BY f.document_id, f.line`,
    [r.id, JSON.stringify(times), scope.from, scope.to, JSON.stringify(rule.capital?.codes ?? [])],
  );
}

/** The fiscal years of what is on a return, with the turnover of them that earlier returns hold. */
async function sliceYears(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { rule, levies }: TurnoverScheme,
  spans: readonly SchemeInForce[],
  facts: readonly SchemeFact[],
): Promise<SliceYear[]> {
  const { firstSlice } = rule;
  if (!firstSlice) return [];
  const pack = work.packs.byId(r.pack);
  const yearOf = (day: string) => endOfYear(Number(optionsOn(pack, r, day)[firstSlice.yearEnds]), day);
  const now = facts.filter((fact) => fact.reported && isTurnover(rule, fact));
  const years = [...new Set(now.map(({ ownEnd }) => yearOf(ownEnd)))].sort();
  const times = levySpans(levies, spans);
  return Promise.all(
    years.map(async (year) => {
      const from = addMonths(addDays(year, 1), -12);
      const earlier = await work.rows<
        Pick<SchemeFact, "code" | "treatment" | "direction" | "rate"> & { gross: number }
      >(
        `SELECT f.code, f.treatment, f.direction, f.rate, sum(f.net + f.tax) AS gross FROM facts f
         WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.direction = 'sale' AND f.own_end BETWEEN $2 AND $3
           AND ${inSpan("$4", "from", times.length)} IS NOT NULL AND f.${scope.by} < $5
         GROUP BY f.code, f.treatment, f.rate`,
        [r.id, from, year, JSON.stringify(times), scope.from],
      );
      const begun = spans.filter(({ from: first }) => yearOf(first) === year);
      const typed = begun
        .map(({ settings }) => textAt(settings, firstSlice.setting))
        .find((text) => text !== "");
      const used = typed === undefined ? 0 : parseAmount(typed, minorDigits(pack.currency));
      const sum = (list: readonly { gross: number }[]) => list.reduce((all, { gross }) => all + gross, 0);
      return {
        year,
        before: used + sum(earlier.filter((fact) => isTurnover(rule, fact))),
        now: sum(
          now.filter(({ ownEnd }) => yearOf(ownEnd) === year).map(({ net, tax }) => ({ gross: net + tax })),
        ),
      };
    }),
  );
}
