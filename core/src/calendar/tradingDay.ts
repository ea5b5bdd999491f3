import { addDays } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/**
 * The trading day a moment belongs to: the local date, or the day before while the cut-off hour has not struck. The
 * local clock is what counts, so days on which it is put forward or back have 23 or 25 hours.
 * @param instant ISO 8601 in UTC or with an offset
 * @param zone IANA time zone, for example `Europe/London`
 * @param cutOff local time `HH:MM` at which a new trading day begins; `00:00` for midnight
 * @example tradingDay("2026-07-04T01:30:00Z", "Europe/London", "04:00") // "2026-07-03": it is 02:30 there
 */
export function tradingDay(instant: string, zone: string, cutOff: string): CalendarDate {
  const { date, time } = localTime(instant, zone);
  return time < cutOff ? addDays(date, -1) : date;
}

/** The local date and time (`HH:MM`) of a moment. */
export function localTime(instant: string, zone: string): { date: CalendarDate; time: string } {
  const parts = new Map(
    formatOf(zone)
      .formatToParts(new Date(instant))
      .map(({ type, value }) => [type, value]),
  );
  const of = (type: Intl.DateTimeFormatPartTypes) => parts.get(type) ?? "";
  return { date: `${of("year")}-${of("month")}-${of("day")}`, time: `${of("hour")}:${of("minute")}` };
}

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(zone: string): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known) return known;
  const format = new Intl.DateTimeFormat("en-CA", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  });
  formats.set(zone, format);
  return format;
}
