import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { RetailTakings } from "@fiscalon/core/model/retailTakings";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { minorDigits } from "@fiscalon/core/money/currency";
import { retailTakings } from "@fiscalon/core/schemes/retailTakings";
import type { RetailPeriod } from "@fiscalon/core/schemes/retailTakings";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { overSpans } from "./overSpans.ts";
import { periodRule } from "./periodRule.ts";
import { endsInScope } from "./poolOnReturn.ts";
import type { ReturnScope } from "./queries.ts";
import { schedulesOf } from "./schedules.ts";

/** What the goods of a fact `f` are expected to sell for, minor units; below nought where they went back. */
export function expectedPrice(price: string, digits: number): string {
  return `CAST(round((SELECT coalesce(CAST(l.attributes ->> '$.${price}' AS REAL), 0) FROM lines l
    WHERE l.document_id = f.document_id AND l.no = f.line) * ${10 ** digits}) * sign(f.net) AS INTEGER)`;
}

/** What a retail scheme puts on the return of a scope, of each filing period that lies in it as a whole. */
export async function retailOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: RetailTakings,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const schedules = await schedulesOf(work, r);
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await retailPeriods(work, r, rule, scheme.from, last, digits);
    return retailTakings(rule, { periods, scheme, schedules, digits }, endsInScope(scope, periods));
  });
}

/** What was taken and bought for resale, period by period, as the returns hold it. */
async function retailPeriods(
  work: Work,
  r: RegistrationRecord,
  { takings, rates, price }: RetailTakings,
  from: string,
  to: string,
  digits: number,
): Promise<RetailPeriod[]> {
  const codes = [takings, ...rates.flatMap((rate) => [rate.takings, ...rate.goods])];
  const sums = await work.rows<{ end: string; code: string; amount: number; expected: number }>(
    `SELECT f.period_end AS end, f.code, sum(f.net + f.tax) AS amount,
       sum(CASE f.direction WHEN 'purchase' THEN ${expectedPrice(price, digits)} ELSE 0 END) AS expected
     FROM facts f WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end BETWEEN $2 AND $3
       AND f.code IN (SELECT value FROM json_each($4)) GROUP BY f.period_end, f.code`,
    [r.id, from, to, JSON.stringify(codes)],
  );
  const sumOf = (end: string, of: readonly string[], what: "amount" | "expected") =>
    sums.filter((row) => row.end === end && of.includes(row.code)).reduce((sum, row) => sum + row[what], 0);
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    takings: sumOf(period.to, [takings], "amount"),
    atRate: rates.map((rate) => sumOf(period.to, [rate.takings], "amount")),
    bought: rates.map(({ goods }) => sumOf(period.to, goods, "amount")),
    expected: rates.map(({ goods }) => sumOf(period.to, goods, "expected")),
  }));
}
