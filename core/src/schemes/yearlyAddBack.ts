import { displayDate } from "../calendar/displayDate.ts";
import { endOfYear } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { groupBy } from "../groupBy.ts";
import { textAt } from "../at.ts";
import type { SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import type { YearlyAddBack } from "../model/yearlyAddBack.ts";
import { displayAmount } from "../money/amount.ts";
import { add, exactFromDecimal, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

/** Tax of a levy that was deducted in full, minor units, of purchases of which a percentage is taken back. */
export interface DeductedInFull {
  levy: string;
  percent: string;
  tax: number;
}

/** A filing period with what was deducted in full in it. */
export interface AddBackPeriod extends FilingPeriod {
  deducted: readonly DeductedInFull[];
}

export interface AddBackAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly AddBackPeriod[];
  scheme: SchemeInForce;
  digits: number;
}

/**
 * What the years that are over take back on the periods of a return. A year whose return would come after the scheme has
 * ended is taken back on the last return under it. Rounded half up once a levy and year.
 * @param ends last days of the periods that are on the return
 * @source GSTA (AU) Div 131; ETA (CA) 236; GSTA (NZ) s 21I
 */
export function yearlyAddBack(
  rule: YearlyAddBack,
  around: AddBackAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const steps: SchemeStep[] = [];
  let owed = 0;
  for (const [year, periods] of yearsOf(rule, around)) {
    const on = returnOf(rule, around, year);
    if (on === undefined || !ends.has(on)) continue;
    const deducted = periods.flatMap((period) => period.deducted);
    for (const [levy, rows] of groupBy(deducted, (one) => one.levy)) {
      const box = rule.boxes[levy];
      if (!box) continue;
      const shares = byPercent(rows);
      steps.push(...shares.map((share) => claimedStep(levy, year, share, around.digits)));
      const exact = shares.reduce<Exact>((sum, share) => add(sum, partOf(share)), { n: 0n, d: 1n });
      const back = roundExact(exact);
      if (back === 0) continue;
      steps.push({
        id: `back-${levy}-${year}`,
        words: `${levy} taken back of the year to ${displayDate(year)}.`,
        arithmetic: `${shares.map(({ tax, percent }) => `${displayAmount(tax, around.digits)} × ${percent} %`).join(" + ")} = ${displayAmount(back, around.digits)}`,
        amount: box.sign * back,
        box: box.box,
      });
      owed += back;
    }
  }
  return { steps, owed };
}

function partOf({ tax, percent }: Pick<DeductedInFull, "tax" | "percent">): Exact {
  return multiply({ n: BigInt(tax), d: 100n }, exactFromDecimal(percent));
}

function byPercent(rows: readonly DeductedInFull[]): Pick<DeductedInFull, "tax" | "percent">[] {
  return [...groupBy(rows, ({ percent }) => percent)]
    .map(([percent, own]) => ({ percent, tax: own.reduce((sum, { tax }) => sum + tax, 0) }))
    .filter(({ tax }) => tax !== 0)
    .sort((a, b) => Number(a.percent) - Number(b.percent));
}

function claimedStep(
  levy: string,
  year: CalendarDate,
  { tax, percent }: Pick<DeductedInFull, "tax" | "percent">,
  digits: number,
): SchemeStep {
  return {
    id: `claimed-${levy}-${year}-${percent}`,
    words: `${levy} deducted in full in the year to ${displayDate(year)}, of which ${percent} % is taken back.`,
    arithmetic: displayAmount(tax, digits),
    amount: tax,
  };
}

function yearsOf(
  rule: YearlyAddBack,
  { periods, scheme }: AddBackAround,
): Map<CalendarDate, AddBackPeriod[]> {
  const answer = textAt(scheme.settings, rule.settings.yearEnds);
  const month = answer === "" ? 12 : Number(answer);
  return groupBy(periods, ({ to }) => endOfYear(month, to));
}

/** The last day of the return that takes a year back, where it is reached. */
function returnOf(
  rule: YearlyAddBack,
  { periods, scheme }: AddBackAround,
  year: CalendarDate,
): CalendarDate | undefined {
  const answer = textAt(scheme.settings, rule.settings.later);
  const last = periods.findIndex(({ from, to }) => from <= year && year <= to);
  const due = last < 0 ? undefined : periods[last + (answer === "" ? 0 : Number(answer))];
  if (due) return due.to;
  const end = periods.at(-1);
  return end && scheme.to !== null && scheme.to <= end.to ? end.to : undefined;
}
