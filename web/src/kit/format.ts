import { displayDate, displayDayMonth } from "@fiscalon/core/calendar/displayDate";
import { dateOf } from "@fiscalon/core/calendar/date";
import { dayIn } from "@fiscalon/core/calendar/timeZone";

const MONTH = new Intl.DateTimeFormat("en-GB", { month: "short", timeZone: "UTC" });
const LONG_MONTH = new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone: "UTC" });
const MOMENT = new Intl.DateTimeFormat("en-GB", {
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
});

const utc = (date: string) => new Date(`${date}T00:00:00Z`);

/** "November 2026" of "2026-11". */
export function showMonth(month: string): string {
  return LONG_MONTH.format(utc(`${month}-01`));
}

/** "Jul to Sep 2026", "Jul 2026" for a single month; days where the period does not fill its months. */
export function showPeriod(from: string, to: string): string {
  const year = to.slice(0, 4);
  if (!from.endsWith("-01")) return `${displayDayMonth(from)} to ${displayDate(to)}`;
  if (from.slice(0, 7) === to.slice(0, 7)) return `${MONTH.format(utc(from))} ${year}`;
  return `${MONTH.format(utc(from))} to ${MONTH.format(utc(to))} ${year}`;
}

/** A time of the server in the reader's own zone. */
export function showMoment(iso: string): string {
  return MOMENT.format(new Date(iso));
}

let zone: string | undefined;

/** Says whose days are shown from now on: those of a client's place, of the reader's own where none is said. */
export function keepDaysOf(timeZone: string | undefined): void {
  zone = timeZone;
}

/** The day it is at the client's place; outside of a client where the reader sits. */
export function today(): string {
  const now = new Date();
  if (zone !== undefined) return dayIn(zone, now.toISOString());
  return dateOf(now.getFullYear(), now.getMonth() + 1, now.getDate());
}

export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString("en-GB")} ${count === 1 ? one : many}`;
}

/** An amount as people type it, without what only helps the eye: "1,234.50" and "−3" become 1234.50 and -3. */
export function plainAmount(typed: string): string {
  return typed.replace(/[,\s]/g, "").replace("−", "-");
}
