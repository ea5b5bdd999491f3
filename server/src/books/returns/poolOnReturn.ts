import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PercentageSplit } from "@fiscalon/core/model/percentageSplit";
import type { MarginPool, SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { minorDigits } from "@fiscalon/core/money/currency";
import { marginPool } from "@fiscalon/core/schemes/marginPool";
import { percentageSplit } from "@fiscalon/core/schemes/percentageSplit";
import type { PoolPeriod } from "@fiscalon/core/schemes/marginPool";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { overSpans } from "./overSpans.ts";
import { periodRule } from "./periodRule.ts";
import type { ReturnScope } from "./queries.ts";
import { schedulesOf } from "./schedules.ts";

/**
 * What a pool puts on the return of a scope: of each filing period that lies in it as a whole, with what earlier periods
 * carry into it.
 */
export async function poolOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: MarginPool,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const around = {
    schedules: await schedulesOf(work, r),
    digits: minorDigits(work.packs.byId(r.pack).currency),
  };
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await poolPeriods(work, r, rule, scheme.from, last);
    return marginPool(rule, { ...around, periods, scheme }, endsInScope(scope, periods));
  });
}

/** What fixed percentages of takings and stock put on the return of a scope. */
export async function splitOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: PercentageSplit,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const around = {
    schedules: await schedulesOf(work, r),
    digits: minorDigits(work.packs.byId(r.pack).currency),
  };
  const pool = { sales: rule.sales.codes, purchases: rule.stock.codes };
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await poolPeriods(work, r, pool, scheme.from, last);
    return percentageSplit(rule, { ...around, periods, scheme }, endsInScope(scope, periods));
  });
}

/** The last days of the filing periods that lie in a scope as a whole. */
export function endsInScope(
  { by, from, to }: ReturnScope,
  periods: readonly FilingPeriod[],
): ReadonlySet<string> {
  const begun = periods.filter((period) => from <= (by === "period_end" ? period.to : period.from));
  return new Set(begun.map((period) => period.to).filter((end) => end <= to));
}

/** What was sold from the pool and bought for it, period by period, as the returns hold it. */
export async function poolPeriods(
  work: Work,
  r: RegistrationRecord,
  { sales, purchases }: Pick<MarginPool, "sales" | "purchases">,
  from: string,
  to: string,
): Promise<PoolPeriod[]> {
  const sums = await work.rows<{ end: string; code: string; amount: number }>(
    `SELECT period_end AS end, code, sum(net + tax) AS amount FROM facts
     WHERE registration_id = $1 AND live = 1 AND held = 0 AND period_end BETWEEN $2 AND $3
       AND code IN (SELECT value FROM json_each($4)) GROUP BY period_end, code`,
    [r.id, from, to, JSON.stringify([...sales, ...purchases])],
  );
  const sumOf = (codes: readonly string[], end: string) =>
    sums
      .filter((row) => row.end === end && codes.includes(row.code))
      .reduce((sum, { amount }) => sum + amount, 0);
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    sold: sumOf(sales, period.to),
    bought: sumOf(purchases, period.to),
  }));
}
