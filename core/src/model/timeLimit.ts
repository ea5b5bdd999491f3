import { displayDayMonth } from "../calendar/displayDate.ts";
import { addMonths, addMonthsToEnd } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { TimeLimit } from "./correction.ts";

/** What a limit counts from: the end of an item's own period, the day its return was due, and its own day. */
export interface LimitedItem {
  period: CalendarDate;
  due: CalendarDate;
  document: CalendarDate;
}

/** The last day on which an item can be put right or claimed. */
export function lastDayOf(limit: TimeLimit, item: LimitedItem): CalendarDate {
  if ("day" in limit) {
    const year = Number(item.document.slice(0, 4));
    const yearEnd = `${item.document.slice(5) <= limit.yearEnds ? year : year + 1}-${limit.yearEnds}`;
    const sameYear = `${yearEnd.slice(0, 4)}-${limit.day}`;
    return sameYear > yearEnd ? sameYear : `${Number(yearEnd.slice(0, 4)) + 1}-${limit.day}`;
  }
  const months = 12 * limit.years;
  if (limit.from === "own-period") return addMonthsToEnd(item.period, months);
  return addMonths(limit.from === "own-due" ? item.due : item.document, months);
}

/** A limit in words, for a sentence: "within 4 years of the end of their period". */
export function limitInWords(limit: TimeLimit): string {
  if ("day" in limit)
    return `until ${displayDayMonth(limit.day)} after the year to ${displayDayMonth(limit.yearEnds)}`;
  const from = {
    "own-period": "the end of their period",
    "own-due": "the day the return of their period was due",
    document: "the day of the document",
  }[limit.from];
  return `within ${limit.years} years of ${from}`;
}

/** Whole years after which nothing can be put right, for a look at a date. */
export function yearsOf(limit: TimeLimit): number {
  return "day" in limit ? 2 : limit.years;
}
