import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { Component, RateRow, RateSchedules } from "../model/taxCode.ts";

/**
 * The row of the component's schedule in force at the tax point.
 * @returns undefined for components without a schedule of their own
 * @throws FiscalError `tax/no-rate` naming levy and date when the schedule has no row for it, never 0
 */
export function rateInForce(
  component: Component,
  schedules: RateSchedules,
  taxPoint: CalendarDate,
): RateRow | undefined {
  if (!("schedule" in component.rate)) return undefined;
  const { schedule } = component.rate;
  const row = rowInForce(schedules[schedule], taxPoint);
  if (row) return row;
  throw new FiscalError(
    "tax/no-rate",
    `No rate of ${component.levy} is in force on ${displayDate(taxPoint)} for this code. Check the tax point or add a rate for that day.`,
    "taxPoint",
    { levy: component.levy, schedule, taxPoint },
  );
}

/**
 * The rate of a schedule in force on a day, a decimal of a percent.
 * @throws FiscalError `tax/no-rate`, never 0
 */
export function rateOn(schedules: RateSchedules, schedule: string, on: CalendarDate): string {
  const row = rowInForce(schedules[schedule], on);
  if (row) return row.rate;
  throw new FiscalError(
    "tax/no-rate",
    `No rate of ${schedule} is in force on ${displayDate(on)} for this code. Check the tax point or add a rate for that day.`,
    "taxPoint",
    { schedule, taxPoint: on },
  );
}

/** The row of a schedule in force on a day, or undefined. */
export function rowInForce(rows: readonly RateRow[] | undefined, on: CalendarDate): RateRow | undefined {
  return rows?.find((r) => r.from <= on && (r.to === null || on <= r.to));
}
