import { Temporal } from "temporal-polyfill";
import { FiscalError } from "../errors.ts";

/** A calendar date `YYYY-MM-DD`, without time or time zone. Such strings sort by time. */
export type CalendarDate = string;

const PATTERN = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Whether `text` is a date that exists: `2026-02-29` is none. */
export function isCalendarDate(text: string): boolean {
  const match = PATTERN.exec(text);
  if (!match) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  return year >= 1900 && month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
}

/** @throws FiscalError `calendar/not-a-date` when `text` is no existing date */
export function requireDate(text: string, field?: string): CalendarDate {
  if (!isCalendarDate(text)) {
    throw new FiscalError("calendar/not-a-date", `"${text}" is not a date. Write it like 2026-03-31.`, field);
  }
  return text;
}

/** Days in `month` (1 to 12) of `year`; none where there is no such month. */
export function daysInMonth(year: number, month: number): number {
  if (month < 1 || month > 12) return 0;
  const index = year * 12 + month;
  const known = MONTH_LENGTHS.get(index);
  if (known !== undefined) return known;
  const { daysInMonth: days } = Temporal.PlainYearMonth.from({ year, month });
  MONTH_LENGTHS.set(index, days);
  return days;
}
const MONTH_LENGTHS = new Map<number, number>();

/** The date from its parts; month 1 to 12. Parts out of range roll over: day 32 of a month of 31 is the first of the next. */
export function dateOf(year: number, month: number, day: number): CalendarDate {
  if (month < 1 || month > 12 || day < 1 || day > daysInMonth(year, month)) {
    return Temporal.PlainDate.from({ year, month: 1, day: 1 })
      .add({ months: month - 1 })
      .add({ days: day - 1 })
      .toString();
  }
  return `${String(year).padStart(4, "0")}-${month < 10 ? "0" : ""}${month}-${day < 10 ? "0" : ""}${day}`;
}

/** Year, month (1 to 12) and day of a date. */
export function partsOf(date: CalendarDate): { year: number; month: number; day: number } {
  return { year: Number(date.slice(0, 4)), month: Number(date.slice(5, 7)), day: Number(date.slice(8, 10)) };
}

/** Days later, or earlier. */
export const addDays = remembered((date, days) => Temporal.PlainDate.from(date).add({ days }));

/** Months later (or earlier), the day held back to the last of a shorter month: 31 Jan + 1 = 28 or 29 Feb. */
export const addMonths = remembered((date, months) => Temporal.PlainDate.from(date).add({ months }));

/** The last day of the month of a date. */
export function endOfMonth(date: CalendarDate): CalendarDate {
  const { year, month } = partsOf(date);
  return dateOf(year, month, daysInMonth(year, month));
}

/** The last day of the year a day lies in, where years end with a month (1 to 12). */
export function endOfYear(month: number, day: CalendarDate): CalendarDate {
  const end = endOfMonth(`${day.slice(0, 4)}-${String(month).padStart(2, "0")}-01`);
  return day <= end ? end : endOfMonth(addMonths(end, 12));
}

/** Months later, the last day of a month staying one: 30 Jun + 6 = 31 Dec. */
export function addMonthsToEnd(date: CalendarDate, months: number): CalendarDate {
  const shifted = addMonths(date, months);
  return endOfMonth(date) === date ? endOfMonth(shifted) : shifted;
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: CalendarDate, to: CalendarDate): number {
  return dayNumber(to) - dayNumber(from);
}

/** Days since the first of 1970: lists of thousands of documents share few dates. */
function dayNumber(date: CalendarDate): number {
  const known = DAY_NUMBERS.get(date);
  if (known !== undefined) return known;
  const { days } = EPOCH.until(date, { largestUnit: "days" });
  if (DAY_NUMBERS.size < MOST_DAYS) DAY_NUMBERS.set(date, days);
  return days;
}
const EPOCH = Temporal.PlainDate.from("1970-01-01");
const DAY_NUMBERS = new Map<CalendarDate, number>();
const MOST_DAYS = 50_000;

/** 0 for Sunday to 6 for Saturday. */
export function weekday(date: CalendarDate): number {
  return Temporal.PlainDate.from(date).dayOfWeek % 7;
}

/** So many answers are kept; a practice of any age asks for fewer. */
const MOST_KEPT = 50_000;

/** Dates repeat: the documents of a year ask about some hundred days, again and again. What was worked out is kept. */
function remembered(
  work: (date: CalendarDate, by: number) => Temporal.PlainDate,
): (date: CalendarDate, by: number) => CalendarDate {
  const kept = new Map<string, CalendarDate>();
  return (date, by) => {
    const key = `${date}/${by}`;
    const known = kept.get(key);
    if (known !== undefined) return known;
    const found = work(date, by).toString();
    if (kept.size >= MOST_KEPT) kept.clear();
    kept.set(key, found);
    return found;
  };
}
