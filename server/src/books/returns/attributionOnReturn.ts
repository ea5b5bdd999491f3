import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { Attribution } from "@fiscalon/core/model/attribution";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Direction, Treatment } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import { attribution } from "@fiscalon/core/schemes/attribution";
import type { AttributedPeriod, AttributedTax } from "@fiscalon/core/schemes/attributedTax";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { endsInScope } from "./poolOnReturn.ts";
import { overSpans } from "./overSpans.ts";
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
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await attributedPeriods(work, r, rule, scheme.from, last);
    return attribution(rule, { periods, scheme, digits }, endsInScope(scope, periods));
  });
}

/** The filing periods of some time with turnover, and tax on purchases by what it serves. */
export async function attributedPeriods(
  work: Work,
  r: RegistrationRecord,
  rule: Pick<Attribution, "ratio" | "residual" | "exempt">,
  from: string,
  to: string,
): Promise<AttributedPeriod[]> {
  const { ratio, residual, exempt } = rule;
  const sums = await work.rows<{
    end: string;
    direction: Direction;
    levy: string;
    code: string;
    treatment: Treatment;
    net: number;
    tax: number;
    recoverable: number;
  }>(
    // Facts of a bucket differ in nothing that matters here: one of them tells its code and its levy.
    `SELECT b.end, f.direction, f.levy, f.code, f.treatment, b.net, b.tax, b.recoverable FROM (
       SELECT period_end AS end, min(id) AS one, sum(net) AS net, sum(tax) AS tax, sum(recoverable) AS recoverable
       FROM facts WHERE registration_id = $1 AND live = 1 AND period_end BETWEEN $2 AND $3
       GROUP BY period_end, bucket) b JOIN facts f ON f.id = b.one`,
    [r.id, from, to],
  );
  const counted = (levy: string) => ratio.levies?.includes(levy) ?? true;
  const netOf = (end: string, treatments: readonly Treatment[]) =>
    sums
      .filter((row) => row.end === end && row.direction === "sale" && counted(row.levy))
      .filter(({ code, treatment }) => treatments.includes(treatment) && !ratio.leftOut.includes(code))
      .reduce((sum, { net }) => sum + net, 0);
  const taxesOf = (end: string) => {
    const purchases = sums.filter((row) => row.end === end && row.direction === "purchase");
    return [...groupBy(purchases, ({ levy }) => levy)].map(([levy, rows]): AttributedTax => {
      const of = (codes: readonly string[]) => rows.filter(({ code }) => codes.includes(code));
      const plain = rows.filter(
        ({ code, treatment }) =>
          treatment !== "adjustment" && !residual.includes(code) && !exempt.includes(code),
      );
      return {
        levy,
        direct: plain.reduce((sum, { recoverable }) => sum + recoverable, 0),
        exempt: of(exempt).reduce((sum, { tax }) => sum + tax, 0),
        withheld: of(exempt).reduce((sum, { tax, recoverable }) => sum + tax - recoverable, 0),
        residual: of(residual).reduce((sum, { recoverable }) => sum + recoverable, 0),
      };
    });
  };
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    taxable: netOf(period.to, ratio.taxable),
    exempt: netOf(period.to, ratio.exempt),
    taxes: taxesOf(period.to),
  }));
}
