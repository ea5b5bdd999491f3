import { addDays, addMonths, dateOf, endOfMonth, partsOf } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/** Months in a filing period by its rhythm. */
export const MONTHS_OF = {
  monthly: 1,
  "two-monthly": 2,
  quarterly: 3,
  "four-monthly": 4,
  "six-monthly": 6,
  annual: 12,
} as const;
export type Frequency = keyof typeof MONTHS_OF;

/** A rhythm that holds from a day on. `anchor`: any month end on which a period ends. */
export interface RhythmChange {
  from: CalendarDate;
  frequency: Frequency;
  anchor: CalendarDate;
}

/**
 * What decides the filing periods of a registration: its first rhythm and, in order of time, the changes of rhythm.
 * A change to another rhythm ends the running period on the day before it.
 */
export interface PeriodRule {
  frequency: Frequency;
  anchor: CalendarDate;
  from: CalendarDate;
  to: CalendarDate | null;
  changes?: readonly RhythmChange[];
}

/** Both days belong to the period. */
export interface FilingPeriod {
  from: CalendarDate;
  to: CalendarDate;
}

/**
 * The filing period that contains `date`. The first starts on the day of registration, the last ends on the
 * day it ends; a change of rhythm cuts; all others run between month ends of the rhythm.
 * @returns undefined when the registration is not in force on that day
 */
export function filingPeriodOn(rule: PeriodRule, date: CalendarDate): FilingPeriod | undefined {
  if (date < rule.from || (rule.to !== null && date > rule.to)) return undefined;
  const stretch = rhythmOn(rule, date);
  const end = rhythmEnd(stretch, date);
  const start = addDays(endOfMonth(addMonths(firstOf(end), -MONTHS_OF[stretch.frequency])), 1);
  const last = stretch.to;
  return {
    from: start < stretch.from ? stretch.from : start,
    to: last !== null && last < end ? last : end,
  };
}

/** The rhythm in force on a day, with the first and the last day it holds. */
export function rhythmOn(rule: PeriodRule, date: CalendarDate): PeriodRule {
  const changes = turnsOf(rule);
  const index = changes.findLastIndex((change) => change.from <= date);
  const current = index < 0 ? rule : changes[index];
  const next = changes[index + 1];
  return {
    frequency: current?.frequency ?? rule.frequency,
    anchor: current?.anchor ?? rule.anchor,
    from: current?.from ?? rule.from,
    to: next === undefined ? rule.to : addDays(next.from, -1),
  };
}

/** The changes that turn the rhythm; one to the rhythm that is there already cuts nothing. */
function turnsOf({ frequency, anchor, changes = [] }: PeriodRule): RhythmChange[] {
  let before = { frequency, anchor };
  return changes.filter((change) => {
    const same =
      change.frequency === before.frequency &&
      monthsApart(change.anchor, before.anchor) % MONTHS_OF[change.frequency] === 0;
    before = change;
    return !same;
  });
}

function monthsApart(a: CalendarDate, b: CalendarDate): number {
  const [first, second] = [partsOf(a), partsOf(b)];
  return first.year * 12 + first.month - (second.year * 12 + second.month);
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

function rhythmEnd({ frequency, anchor: month }: PeriodRule, date: CalendarDate): CalendarDate {
  const months = MONTHS_OF[frequency];
  const distance = monthsApart(month, date);
  const ahead = ((distance % months) + months) % months;
  return endOfMonth(addMonths(firstOf(date), ahead));
}

function firstOf(date: CalendarDate): CalendarDate {
  const { year, month } = partsOf(date);
  return dateOf(year, month, 1);
}
