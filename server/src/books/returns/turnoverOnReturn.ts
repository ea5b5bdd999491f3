import { textAt } from "@fiscalon/core/at";
import { addDays, addMonths, endOfYear } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { SchemeDefinition, SchemeInForce, TurnoverRate } from "@fiscalon/core/model/scheme";
import { schemeOn } from "@fiscalon/core/model/scheme";
import type { Treatment } from "@fiscalon/core/model/taxCode";
import { parseAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import { without } from "@fiscalon/core/schemes/movementsUnder";
import { isTurnover, setAside, turnoverRateScheme } from "@fiscalon/core/schemes/turnoverRate";
import type { CapitalLine, SchemeFact, SliceYear } from "@fiscalon/core/schemes/turnoverRate";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { DayGroup } from "./dayGroups.ts";
import { periodRule } from "./periodRule.ts";
import { inScope, inSpan, levySpans } from "./queries.ts";
import type { ReturnScope } from "./queries.ts";
import { schemeFacts } from "./schemeFacts.ts";
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
  days: readonly DayGroup[],
): Promise<SchemeOnReturn & { kept: FactGroup[] }> {
  const { rule } = definition;
  const facts = await schemeFacts(work, r, scope, definition, spans, days);
  const bears = facts.some(({ code }) => rule.capital?.codes.includes(code));
  const current = scope.by === "period_end" && schemeOn(spans, scope.to) ? scope.to : null;
  const result = turnoverRateScheme(rule, {
    periods: periodsOf(r, facts, current),
    current,
    schemes: spans,
    registered: r.validFrom,
    facts,
    capital: bears ? await capitalLines(work, r, scope, definition, spans) : [],
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
