import type { CalendarDate } from "../../calendar/date.ts";
import { ratedComponents } from "../../tax/ratedComponents.ts";
import { priceLine } from "../../tax/priceLine.ts";
import { rowInForce } from "../../tax/rateInForce.ts";
import { ROUND_EACH_LINE } from "../../model/rounding.ts";
import type { Direction, RateSchedules, TaxCode } from "../../model/taxCode.ts";

const ORDINARY = new Set(["standard", "reduced"]);

/**
 * The ordinary code whose rate gives the printed tax on the printed net, within a minor unit a hundred units of
 * tax and never less than two (registers hold invoices of several rounded lines).
 * @param net minor units
 * @param tax minor units, not zero
 * @returns undefined when no ordinary code of that day fits
 */
export function codeByRate(
  net: number,
  tax: number,
  direction: Direction,
  taxPoint: CalendarDate,
  codes: Iterable<TaxCode>,
  schedules: RateSchedules,
): TaxCode | undefined {
  for (const code of codes) {
    if (!ORDINARY.has(code.treatment)) continue;
    if (code.direction !== "both" && code.direction !== direction) continue;
    if (
      code.components.some(
        (c) => c.charged !== "charged" || c.rate.kind !== "percent" || c.recoverable !== "100",
      )
    )
      continue;
    const components = componentsInForce(code, taxPoint, schedules);
    if (!components) continue;
    const calculated = priceLine(net, "exclusive", components, ROUND_EACH_LINE).reduce(
      (sum, one) => sum + one.tax,
      0,
    );
    if (Math.abs(calculated - tax) <= Math.max(2, Math.abs(tax) / 100)) return code;
  }
  return undefined;
}

/** A code whose rates are not in force on a day cannot be the one. */
function componentsInForce(code: TaxCode, on: CalendarDate, schedules: RateSchedules) {
  const inForce = code.components.every(
    ({ rate }) => !("schedule" in rate) || rowInForce(schedules[rate.schedule], on) !== undefined,
  );
  return inForce ? ratedComponents(code, on, schedules) : undefined;
}
