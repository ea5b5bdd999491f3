import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import type { YearlyRebate } from "@fiscalon/core/model/yearlyRebate";
import { minorDigits } from "@fiscalon/core/money/currency";
import { yearlyRebate } from "@fiscalon/core/schemes/yearlyRebate";
import type { RebatePeriod } from "@fiscalon/core/schemes/yearlyRebate";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { overSpans } from "./overSpans.ts";
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
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await rebatePeriods(work, r, rule, scheme.from, last);
    return yearlyRebate(rule, { periods, scheme, digits }, endsInScope(scope, periods));
  });
}

/** The tax that is given back, period by period, as the returns hold it. */
async function rebatePeriods(
  work: Work,
  r: RegistrationRecord,
  { levy, codes }: YearlyRebate,
  from: string,
  to: string,
): Promise<RebatePeriod[]> {
  const sums = await work.rows<{ end: string; tax: number }>(
    `SELECT period_end AS end, sum(tax) AS tax FROM facts
     WHERE registration_id = $1 AND live = 1 AND held = 0 AND period_end BETWEEN $2 AND $3 AND levy = $4
       AND code IN (SELECT value FROM json_each($5)) GROUP BY period_end`,
    [r.id, from, to, levy, JSON.stringify(codes)],
  );
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    tax: sums.filter(({ end }) => end === period.to).reduce((sum, { tax }) => sum + tax, 0),
  }));
}
