import { addMonths } from "./date.ts";
import type { CalendarDate } from "./date.ts";

/** Years back and ahead from which a date is rather mistyped than meant. Common practice, no source. */
const YEARS_BACK = 20;
const YEARS_AHEAD = 2;

/** Whether a date lies so far from today that it is rather mistyped than meant. */
export function isFar(date: CalendarDate, today: CalendarDate): boolean {
  return date < addMonths(today, -12 * YEARS_BACK) || date > addMonths(today, 12 * YEARS_AHEAD);
}
