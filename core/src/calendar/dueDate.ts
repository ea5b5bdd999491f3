import { addDays, addMonths, addMonthsToEnd, dateOf, daysInMonth, partsOf, weekday } from "./date.ts";
import type { CalendarDate } from "./date.ts";
import type { Frequency } from "./filingPeriods.ts";

/**
 * When a return is due: `months` after the month in which the period ends, on `day` of that month (`end`: its last
 * day), and `days` later. Of several rules the first that fits the period applies.
 * - `shift`: what a day that is no working day becomes; `payShift`: the same for the money, where it differs.
 * - `pay`: when the money is due, where that is another day. `fixed`: days set for single periods, by their end.
 */
export interface DueRule {
  frequencies?: readonly Frequency[];
  /** Months (1 to 12) in which the period ends, where the rule is for some only. */
  endMonths?: readonly number[];
  levies?: readonly string[];
  /** Regions of the registration, where the day differs between them. */
  regions?: readonly string[];
  /** An option of the registration and the value it must have. */
  option?: readonly [id: string, value: string];
  months: number;
  day: number | "end";
  days?: number;
  shift: Shift;
  payShift?: Shift;
  pay?: { months: number; day: number | "end"; days?: number };
  fixed?: Readonly<Record<CalendarDate, CalendarDate>>;
  /** Only for periods that end on one of these days, both included. */
  ends?: { from: CalendarDate; to: CalendarDate | null };
  source: string;
  /** Why the day should be looked up before it is relied on. */
  doubt?: string;
}

export type Shift = "none" | "next" | "before";

/** The period a due date is asked for. */
export interface DueQuestion {
  periodEnd: CalendarDate;
  frequency: Frequency;
  levies: readonly string[];
  options?: Readonly<Record<string, string>>;
  region?: string | undefined;
}

/** The rule for a period, or undefined where no rule fits. */
export function dueRuleFor(rules: readonly DueRule[], question: DueQuestion): DueRule | undefined {
  const { month } = partsOf(question.periodEnd);
  return rules.find(
    (rule) =>
      (rule.frequencies?.includes(question.frequency) ?? true) &&
      (rule.endMonths?.includes(month) ?? true) &&
      (rule.ends === undefined ||
        (rule.ends.from <= question.periodEnd &&
          (rule.ends.to === null || question.periodEnd <= rule.ends.to))) &&
      (rule.levies?.some((levy) => question.levies.includes(levy)) ?? true) &&
      (rule.regions?.includes(question.region ?? "") ?? true) &&
      (rule.option === undefined || question.options?.[rule.option[0]] === rule.option[1]),
  );
}

/**
 * The day by which the return for a period is due, before weekends and holidays are looked at. A period that does
 * not end with a month keeps its day where the rule says `end`.
 */
export function dueDate(rule: DueRule, periodEnd: CalendarDate): CalendarDate {
  return rule.fixed?.[periodEnd] ?? dayAfter(rule, periodEnd);
}

/** The day by which the money for a period is due, before weekends and holidays are looked at. */
export function payDate(rule: DueRule, periodEnd: CalendarDate): CalendarDate {
  return rule.pay ? dayAfter(rule.pay, periodEnd) : dueDate(rule, periodEnd);
}

function dayAfter(
  rule: { months: number; day: number | "end"; days?: number },
  periodEnd: CalendarDate,
): CalendarDate {
  if (rule.day !== "end") {
    const { year, month } = partsOf(addMonths(periodEnd, rule.months));
    return addDays(dateOf(year, month, Math.min(rule.day, daysInMonth(year, month))), rule.days ?? 0);
  }
  return addDays(addMonthsToEnd(periodEnd, rule.months), rule.days ?? 0);
}

/** Days on which nobody works: weekends by weekday (0 Sunday to 6 Saturday), and holidays. */
export interface FreeDays {
  weekend: readonly number[];
  holidays: ReadonlySet<CalendarDate>;
}

/** The day itself where it is a working day, otherwise the next one or the one before, as the rule says. */
export function workingDay(date: CalendarDate, shift: Shift, free: FreeDays): CalendarDate {
  if (shift === "none") return date;
  const step = shift === "next" ? 1 : -1;
  let day = date;
  while (free.weekend.includes(weekday(day)) || free.holidays.has(day)) day = addDays(day, step);
  return day;
}
