import { textAt } from "../at.ts";
import { dateOf, isCalendarDate, partsOf } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/** Order of the parts in dates written with numbers only. */
export type DateOrder = "dmy" | "mdy" | "ymd";

const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

/**
 * Reads a date as people write it: `2026-07-14`, `14/7/26`, `14.07.2026`, `14 Jul 2026`, `20260714`, and, with
 * `today` given, `14/7` in the year that puts it nearest to today. A time after the date is ignored.
 * @param order which part comes first when the text does not tell
 * @returns the date, or undefined when the text is none (also for 30 February)
 */
export function parseDate(text: string, order: DateOrder, today?: CalendarDate): CalendarDate | undefined {
  const cleaned = text.trim().replace(/[T ]\d{1,2}:\d{2}.*$/, "");
  if (isCalendarDate(cleaned)) return cleaned;
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(cleaned);
  if (compact) return existing(Number(compact[1]), Number(compact[2]), Number(compact[3]));
  const parts = cleaned.split(/[\s./,-]+/).filter((part) => part !== "");
  if (parts.length < 2 || parts.length > 3) return undefined;
  const named = parts.findIndex((part) => /^[a-z]{3,9}$/i.test(part));
  return named >= 0 ? fromNamedMonth(parts, named, today) : fromNumbers(parts, order, today);
}

function fromNamedMonth(parts: string[], at: number, today?: CalendarDate): CalendarDate | undefined {
  const month = MONTHS.indexOf(textAt(parts, at).slice(0, 3).toLowerCase()) + 1;
  const rest = parts.filter((_, index) => index !== at);
  if (month === 0 || !rest.every((part) => /^\d{1,4}$/.test(part))) return undefined;
  const [first = "", second] = rest;
  if (first.length === 4) return existing(Number(first), month, Number(second));
  return withYear(second, month, Number(first), today);
}

function fromNumbers(parts: string[], order: DateOrder, today?: CalendarDate): CalendarDate | undefined {
  if (!parts.every((part) => /^\d{1,4}$/.test(part))) return undefined;
  const [first = "", second = "", third] = parts;
  if (first.length === 4 || (order === "ymd" && third !== undefined)) {
    return existing(fullYear(first), Number(second), Number(third));
  }
  const [day, month] = order === "mdy" ? [second, first] : [first, second];
  return withYear(third, Number(month), Number(day), today);
}

function withYear(year: string | undefined, month: number, day: number, today?: CalendarDate) {
  if (year !== undefined) return existing(fullYear(year), month, day);
  if (today === undefined) return undefined;
  const now = partsOf(today);
  const offset = month - now.month > 6 ? -1 : month - now.month < -6 ? 1 : 0;
  return existing(now.year + offset, month, day);
}

function fullYear(text: string): number {
  const year = Number(text);
  return text.length > 2 ? year : year < 70 ? 2000 + year : 1900 + year;
}

function existing(year: number, month: number, day: number): CalendarDate | undefined {
  if (![year, month, day].every(Number.isInteger) || month < 1 || month > 12 || day < 1 || day > 31) {
    return undefined;
  }
  const date = dateOf(year, month, day);
  return isCalendarDate(date) && partsOf(date).month === month ? date : undefined;
}
