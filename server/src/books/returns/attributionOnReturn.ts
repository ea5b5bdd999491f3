import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { Attribution } from "@fiscalon/core/model/attribution";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { minorDigits } from "@fiscalon/core/money/currency";
import { attribution } from "@fiscalon/core/schemes/attribution";
import type { AttributedPeriod } from "@fiscalon/core/schemes/attribution";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { endsInScope } from "./poolOnReturn.ts";
import { periodRule } from "./periodRule.ts";
import type { ReturnScope } from "./queries.ts";

/** What the sharing of tax on mixed use puts on the return of a scope, with the adjustment of a tax year that is over. */
export async function attributionOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: Attribution,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  const results: SchemeResult[] = [];
  for (const scheme of spans.filter((span) => span.from <= scope.to)) {
    const last = scheme.to !== null && scheme.to < scope.to ? scheme.to : scope.to;
    const periods = await attributedPeriods(work, r, rule, scheme.from, last);
    results.push(attribution(rule, { periods, scheme, digits }, endsInScope(scope, periods)));
  }
  return {
    steps: results.flatMap(({ steps }) => steps),
    owed: results.reduce((sum, { owed }) => sum + owed, 0),
  };
}

async function attributedPeriods(
  work: Work,
  r: RegistrationRecord,
  rule: Attribution,
  from: string,
  to: string,
): Promise<AttributedPeriod[]> {
  const { ratio, residual, exempt } = rule;
  const supplies = await work.rows<{ end: string; exempt: number; net: number }>(
    // A supply with several levies counts once.
    `SELECT end, exempt, sum(net) AS net FROM (
       SELECT period_end AS end, treatment IN (SELECT value FROM json_each($5)) AS exempt, net FROM facts
       WHERE registration_id = $1 AND live = 1 AND held = 0 AND direction = 'sale' AND period_end BETWEEN $2 AND $3
         AND treatment IN (SELECT value FROM json_each($4) UNION SELECT value FROM json_each($5))
         AND code NOT IN (SELECT value FROM json_each($6))
       GROUP BY document_id, line, period_end, release_of)
     GROUP BY end, exempt`,
    [
      r.id,
      from,
      to,
      JSON.stringify(ratio.taxable),
      JSON.stringify(ratio.exempt),
      JSON.stringify(ratio.leftOut),
    ],
  );
  const taxes = await work.rows<{
    end: string;
    levy: string;
    direct: number;
    exempt: number;
    residual: number;
  }>(
    `SELECT period_end AS end, levy,
       sum(CASE WHEN code IN (SELECT value FROM json_each($4)) THEN recoverable ELSE 0 END) AS residual,
       sum(CASE WHEN code IN (SELECT value FROM json_each($5)) THEN tax ELSE 0 END) AS exempt,
       sum(CASE WHEN code IN (SELECT value FROM json_each($4) UNION SELECT value FROM json_each($5))
         OR treatment = 'adjustment' THEN 0 ELSE recoverable END) AS direct
     FROM facts WHERE registration_id = $1 AND live = 1 AND held = 0 AND direction = 'purchase'
       AND period_end BETWEEN $2 AND $3 GROUP BY period_end, levy`,
    [r.id, from, to, JSON.stringify(residual), JSON.stringify(exempt)],
  );
  const netOf = (end: string, isExempt: number) =>
    supplies
      .filter((row) => row.end === end && row.exempt === isExempt)
      .reduce((sum, { net }) => sum + net, 0);
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    taxable: netOf(period.to, 0),
    exempt: netOf(period.to, 1),
    taxes: taxes
      .filter(({ end }) => end === period.to)
      .map(({ levy, direct, exempt: onExempt, residual: shared }) => ({
        levy,
        direct,
        exempt: onExempt,
        residual: shared,
      })),
  }));
}
