import type { DueRule } from "../jurisdictions/pack.ts";
import { addDays, addMonths, endOfMonth, weekday } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/**
 * The day by which the return for a period is due. Month-end periods stay at month ends while whole months are
 * added, so the 30th of June and seven days more is the 7th of August.
 */
export function dueDate(rule: DueRule, periodEnd: CalendarDate): CalendarDate {
  const shifted = addMonths(periodEnd, rule.months);
  const base = endOfMonth(periodEnd) === periodEnd ? endOfMonth(shifted) : shifted;
  return addDays(base, rule.days);
}

/** The day itself when money moves on it, otherwise the last working day before. `holidays` are calendar dates. */
export function workingDayOnOrBefore(date: CalendarDate, holidays: ReadonlySet<CalendarDate>): CalendarDate {
  let day = date;
  while (weekday(day) === 0 || weekday(day) === 6 || holidays.has(day)) day = addDays(day, -1);
  return day;
}
