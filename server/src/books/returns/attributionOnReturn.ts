import { valueAt } from "@fiscalon/core/at";
import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { Attribution } from "@fiscalon/core/model/attribution";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Treatment } from "@fiscalon/core/model/taxCode";
import { minorDigits } from "@fiscalon/core/money/currency";
import { attribution } from "@fiscalon/core/schemes/attribution";
import type { AttributedPeriod, AttributedTax } from "@fiscalon/core/schemes/attributedTax";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { endsInScope } from "./poolOnReturn.ts";
import { overSpans } from "./overSpans.ts";
import { periodRule } from "./periodRule.ts";
import { describedGroups } from "./queries.ts";
import type { DescribedGroup, ReturnScope } from "./queries.ts";

/** What the sharing of tax on mixed use puts on the return of a scope, with the adjustment of a tax year that is over. */
export async function attributionOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: Attribution,
  spans: readonly SchemeInForce[],
  known: readonly DescribedGroup[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await attributedPeriods(work, r, rule, scheme.from, last, known);
    return attribution(rule, { periods, scheme, digits }, endsInScope(scope, periods));
  });
}

/**
 * The filing periods of some time with turnover, and tax on purchases by what it serves.
 * @param known everything on some of the returns, where it is read already
 */
export async function attributedPeriods(
  work: Work,
  r: RegistrationRecord,
  rule: Pick<Attribution, "ratio" | "residual" | "exempt">,
  from: string,
  to: string,
  known: readonly DescribedGroup[] = [],
): Promise<AttributedPeriod[]> {
  const { ratio, residual, exempt } = rule;
  const periods = filingPeriods(periodRule(r), from, to);
  const onReturns = new Map<string, readonly DescribedGroup[]>();
  for (const { to: end } of periods) {
    const here = known.filter(({ periodEnd }) => periodEnd === end);
    onReturns.set(end, end > to ? [] : here.length > 0 ? here : await describedGroups(work, r.id, end));
  }
  const counted = (levy: string) => ratio.levies?.includes(levy) ?? true;
  const netOf = (end: string, treatments: readonly Treatment[]) =>
    valueAt(onReturns, end)
      .filter((row) => row.direction === "sale" && counted(row.levy))
      .filter(({ code, treatment }) => treatments.includes(treatment) && !ratio.leftOut.includes(code))
      .reduce((sum, { net }) => sum + net, 0);
  const taxesOf = (end: string) => {
    const purchases = valueAt(onReturns, end).filter(({ direction }) => direction === "purchase");
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
  return periods.map((period) => ({
    ...period,
    taxable: netOf(period.to, ratio.taxable),
    exempt: netOf(period.to, ratio.exempt),
    taxes: taxesOf(period.to),
  }));
}
