import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { Component, RateRow, RateSchedules } from "./taxCode.ts";

/**
 * The row of the component's schedule in force at the tax point.
 * @returns undefined for components without a rate
 * @throws FiscalError `tax/no-rate` naming levy and date when the schedule has no row for it, never 0
 */
export function rateInForce(
  component: Component,
  schedules: RateSchedules,
  taxPoint: CalendarDate,
): RateRow | undefined {
  if (component.rate.kind !== "percent") return undefined;
  const rows = schedules[component.rate.schedule] ?? [];
  const row = rows.find((r) => r.from <= taxPoint && (r.to === null || taxPoint <= r.to));
  if (row) return row;
  throw new FiscalError(
    "tax/no-rate",
    `${component.levy} has no ${component.rate.schedule} rate in force on ${taxPoint}. ` +
      `Check the tax point or add a rate for that day.`,
    "taxPoint",
    { levy: component.levy, schedule: component.rate.schedule, taxPoint },
  );
}
