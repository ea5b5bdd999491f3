import { addDays, addMonths, endOfMonth } from "../calendar/date.ts";
import { filingPeriodOn, rhythmOn } from "../calendar/filingPeriods.ts";
import type { FilingPeriod, PeriodRule } from "../calendar/filingPeriods.ts";
import type { YearEndRule } from "../model/yearEnd.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

/**
 * The fiscal year whose adjustment belongs on a return: the year of the return where it is filed for that year, otherwise
 * the one that ended in the period before.
 * @param month the last month of the fiscal year, 1 to 12
 * @returns undefined where no year ended there
 */
export function yearOnReturn(
  month: number,
  rule: PeriodRule,
  period: FilingPeriod,
): FilingPeriod | undefined {
  const own = yearEndedIn(month, period);
  if (own && isOfYear(rule, period, own)) return own;
  const before = filingPeriodOn(rule, addDays(period.from, -1));
  const last = before && yearEndedIn(month, before);
  return last && !isOfYear(rule, before, last) ? last : undefined;
}

function isOfYear(rule: PeriodRule, period: FilingPeriod, year: FilingPeriod): boolean {
  return rhythmOn(rule, period.to).frequency === "annual" && year.to === period.to;
}

function yearEndedIn(month: number, { from, to }: FilingPeriod): FilingPeriod | undefined {
  const end = [to, from]
    .map((day) => endOfMonth(`${day.slice(0, 4)}-${String(month).padStart(2, "0")}-01`))
    .find((day) => from <= day && day <= to);
  return end === undefined ? undefined : { from: addMonths(addDays(end, 1), -12), to: end };
}

/** The share of what was deducted that is added back; minor units, half up once. */
export function addedBack({ share }: Pick<YearEndRule, "share">, deducted: number): number {
  const percent = exactFromDecimal(share);
  return roundExact({ n: percent.n * BigInt(deducted), d: percent.d * 100n });
}
