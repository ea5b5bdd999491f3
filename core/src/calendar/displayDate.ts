import type { CalendarDate } from "./date.ts";

const DAY_MONTH = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", timeZone: "UTC" });
const DAY = new Intl.DateTimeFormat("en-GB", {
  day: "numeric",
  month: "short",
  year: "numeric",
  timeZone: "UTC",
});

/**
 * A date as people read it, for a sentence or a sheet: "14 Jul 2026" of "2026-07-14". Of a moment its day in UTC;
 * what is no date, an empty cell among them, is handed back as it is.
 */
export function displayDate(date: CalendarDate): string {
  const day = Date.parse(`${date.slice(0, 10)}T00:00:00Z`);
  return Number.isNaN(day) ? date : DAY.format(day);
}

/** The day of a year without the year: "14 Jul" of "07-14" and of "2026-07-14". */
export function displayDayMonth(day: string): string {
  return DAY_MONTH.format(Date.parse(`2000-${day.slice(-5)}T00:00:00Z`));
}

/** A moment as people read it, where nobody's zone is known: "14 Jul 2026 at 09:30 UTC" of "2026-07-14T09:30:12.000Z". */
export function displayMoment(at: string): string {
  return `${displayDate(at)} at ${at.slice(11, 16)} UTC`;
}
