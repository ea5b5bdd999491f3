import { displayDate } from "../calendar/displayDate.ts";
import { addDays, addMonths, endOfYear } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { textAt } from "../at.ts";
import type { SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import type { YearlyRebate } from "../model/yearlyRebate.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";

/** A period with the tax of it that is given back, minor units. */
export interface RebatePeriod extends FilingPeriod {
  tax: number;
}

export interface RebateAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly RebatePeriod[];
  scheme: SchemeInForce;
  digits: number;
}

/**
 * What the periods of a return claim: their tax, as far as the cap of the year leaves it; what a later credit takes below
 * what was claimed is repaid.
 * @param ends last days of the periods that are on the return
 * @source WETA Div 19
 */
export function yearlyRebate(
  rule: YearlyRebate,
  { periods, scheme, digits }: RebateAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const show = (amount: number) => displayAmount(amount, digits);
  const yearOf = (day: CalendarDate) => endOfYear(rule.yearEnds, day);
  const typed = textAt(scheme.settings, rule.setting);
  const brought = typed === "" ? 0 : parseAmount(typed, digits);
  const steps: SchemeStep[] = [];
  let owed = 0;
  for (const [index, { to, tax }] of periods.entries()) {
    if (!ends.has(to) || tax === 0) continue;
    const year = yearOf(to);
    const cap = capOf(rule, addMonths(addDays(year, 1), -12));
    const earlier = periods.slice(0, index).filter((period) => yearOf(period.to) === year);
    const before = earlier.reduce(
      (sum, period) => sum + period.tax,
      yearOf(scheme.from) === year ? brought : 0,
    );
    const claimed = Math.min(cap.amount, Math.max(0, before));
    const claim = Math.min(cap.amount, Math.max(0, before + tax)) - claimed;
    steps.push(
      {
        id: `tax-${to}`,
        words: `${rule.levy} of supplies and own use that bear the rebate.`,
        arithmetic: show(tax),
        amount: tax,
      },
      {
        id: `claim-${to}`,
        words: `Rebate of the year to ${displayDate(year)}: at most ${show(cap.amount)} (${cap.source}), of which ${show(claimed)} was claimed before.`,
        arithmetic: `the lesser of ${show(tax)} and ${show(cap.amount)} − ${show(claimed)} = ${show(claim)}`,
        amount: claim,
        box: rule.boxes.credit,
      },
    );
    owed -= claim;
  }
  return { steps, owed };
}

/** The cap of a year that begins on a day. */
function capOf({ caps }: YearlyRebate, begins: CalendarDate): YearlyRebate["caps"][number] {
  const sorted = [...caps].sort((a, b) => (a.from < b.from ? 1 : -1));
  const cap = sorted.find(({ from }) => from <= begins) ?? sorted.at(-1);
  if (!cap) throw new RangeError("A rebate has a cap.");
  return cap;
}
