import { at } from "../at.ts";
import { FiscalError } from "../errors.ts";

/** A calendar date `YYYY-MM-DD`, without time or time zone. Such strings sort by time. */
export type CalendarDate = string;

const PATTERN = /^(\d{4})-(\d{2})-(\d{2})$/;
const DAY = 86_400_000;

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

const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Days in `month` (1 to 12) of `year`; none where there is no such month. */
export function daysInMonth(year: number, month: number): number {
  const leap = year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
  if (month < 1 || month > 12) return 0;
  return month === 2 && leap ? 29 : at(MONTH_DAYS, month - 1);
}

/** The date from its parts; month 1 to 12. Parts out of range roll over as in Date.UTC. */
export function dateOf(year: number, month: number, day: number): CalendarDate {
  if (month < 1 || month > 12 || day < 1 || day > daysInMonth(year, month)) {
    return new Date(Date.UTC(year, month - 1, day)).toISOString().slice(0, 10);
  }
  return `${String(year).padStart(4, "0")}-${month < 10 ? "0" : ""}${month}-${day < 10 ? "0" : ""}${day}`;
}

/** Year, month (1 to 12) and day of a date. */
export function partsOf(date: CalendarDate): { year: number; month: number; day: number } {
  return { year: Number(date.slice(0, 4)), month: Number(date.slice(5, 7)), day: Number(date.slice(8, 10)) };
}

export function addDays(date: CalendarDate, days: number): CalendarDate {
  const { year, month, day } = partsOf(date);
  return dateOf(year, month, day + days);
}

/** Months later (or earlier), the day held back to the last of a shorter month: 31 Jan + 1 = 28 or 29 Feb. */
export function addMonths(date: CalendarDate, months: number): CalendarDate {
  const { year, month, day } = partsOf(date);
  const index = year * 12 + (month - 1) + months;
  const targetYear = Math.floor(index / 12);
  const targetMonth = (index % 12) + 1;
  return dateOf(targetYear, targetMonth, Math.min(day, daysInMonth(targetYear, targetMonth)));
}

export function endOfMonth(date: CalendarDate): CalendarDate {
  const { year, month } = partsOf(date);
  return dateOf(year, month, daysInMonth(year, month));
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: CalendarDate, to: CalendarDate): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY);
}

/** 0 for Sunday to 6 for Saturday. */
export function weekday(date: CalendarDate): number {
  return new Date(`${date}T00:00:00Z`).getUTCDay();
}
