import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import type { YearlyRebate } from "@fiscalon/core/model/yearlyRebate";
import { minorDigits } from "@fiscalon/core/money/currency";
import { yearlyRebate } from "@fiscalon/core/schemes/yearlyRebate";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "./periodRule.ts";
import { endsInScope } from "./poolOnReturn.ts";
import type { ReturnScope } from "./queries.ts";

/** What a rebate up to a sum a year puts on the return of a scope. */
export async function rebateOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: YearlyRebate,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const results: SchemeResult[] = [];
  for (const scheme of spans.filter((span) => span.from <= scope.to)) {
    const last = scheme.to !== null && scheme.to < scope.to ? scheme.to : scope.to;
    const sums = await work.rows<{ end: string; tax: number }>(
      `SELECT period_end AS end, sum(tax) AS tax FROM facts
       WHERE registration_id = $1 AND live = 1 AND held = 0 AND period_end BETWEEN $2 AND $3 AND levy = $4
         AND code IN (SELECT value FROM json_each($5)) GROUP BY period_end`,
      [r.id, scheme.from, last, rule.levy, JSON.stringify(rule.codes)],
    );
    const taxOf = new Map(sums.map(({ end, tax }) => [end, tax]));
    const periods = filingPeriods(periodRule(r), scheme.from, last).map((period) => ({
      ...period,
      tax: taxOf.get(period.to) ?? 0,
    }));
    results.push(yearlyRebate(rule, { periods, scheme, digits }, endsInScope(scope, periods)));
  }
  return {
    steps: results.flatMap(({ steps }) => steps),
    owed: results.reduce((sum, { owed }) => sum + owed, 0),
  };
}
