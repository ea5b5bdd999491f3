import { FiscalError } from "../errors.ts";
import { addDays, addMonths, dateOf, endOfMonth, partsOf } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/** Months in a filing period by its rhythm. */
export const MONTHS_OF = {
  monthly: 1,
  "two-monthly": 2,
  quarterly: 3,
  "six-monthly": 6,
  annual: 12,
} as const;
export type Frequency = keyof typeof MONTHS_OF;

/** What decides the filing periods of a registration. `anchor`: any month end on which a period ends. */
export interface PeriodRule {
  frequency: Frequency;
  anchor: CalendarDate;
  from: CalendarDate;
  to: CalendarDate | null;
}

/** Both days belong to the period. */
export interface FilingPeriod {
  from: CalendarDate;
  to: CalendarDate;
}

/**
 * The filing period that contains `date`. The first starts on the day of registration, the last ends on the
 * day it ends; all others run between month ends of the rhythm.
 * @returns undefined when the registration is not in force on that day
 */
export function filingPeriodOn(rule: PeriodRule, date: CalendarDate): FilingPeriod | undefined {
  if (date < rule.from || (rule.to !== null && date > rule.to)) return undefined;
  const end = rhythmEnd(rule, date);
  const start = addDays(endOfMonth(addMonths(firstOf(end), -MONTHS_OF[rule.frequency])), 1);
  return {
    from: start < rule.from ? rule.from : start,
    to: rule.to !== null && rule.to < end ? rule.to : end,
  };
}

/** All filing periods that touch `from` to `to`, in order of time. */
export function filingPeriods(rule: PeriodRule, from: CalendarDate, to: CalendarDate): FilingPeriod[] {
  const periods: FilingPeriod[] = [];
  let date = from < rule.from ? rule.from : from;
  while (date <= to) {
    const period = filingPeriodOn(rule, date);
    if (!period) break;
    periods.push(period);
    date = addDays(period.to, 1);
  }
  return periods;
}

function rhythmEnd(rule: PeriodRule, date: CalendarDate): CalendarDate {
  const months = MONTHS_OF[rule.frequency];
  const anchor = partsOf(rule.anchor);
  const at = partsOf(date);
  const distance = anchor.year * 12 + anchor.month - (at.year * 12 + at.month);
  const ahead = ((distance % months) + months) % months;
  return endOfMonth(addMonths(firstOf(date), ahead));
}

function firstOf(date: CalendarDate): CalendarDate {
  const { year, month } = partsOf(date);
  return dateOf(year, month, 1);
}

/** @throws FiscalError `calendar/not-a-month-end` */
export function requireMonthEnd(date: CalendarDate, field: string): CalendarDate {
  if (endOfMonth(date) !== date) {
    throw new FiscalError("calendar/not-a-month-end", `${date} is not the last day of a month.`, field);
  }
  return date;
}
