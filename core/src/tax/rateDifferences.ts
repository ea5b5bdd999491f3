import { addDays } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { RateRow } from "../model/taxCode.ts";
import { rowInForce } from "./rateInForce.ts";

/** Before every day, and after every day, that is written with four digits of a year. */
const [FIRST, LAST] = ["0000-01-01", "9999-12-31"];

/** Days on which two lists of rates differ. Rates are decimals of a percent; null where there is none. */
export interface RateDifference {
  from: CalendarDate;
  to: CalendarDate;
  was: string | null;
  becomes: string | null;
}

/**
 * The stretches of days, in order, on which a schedule bears another rate, or one less or more, with other rows.
 * @param before the rows of a schedule
 * @param after its rows then
 */
export function rateDifferences(before: readonly RateRow[], after: readonly RateRow[]): RateDifference[] {
  const starts = [...before, ...after].flatMap(({ from, to }) =>
    to === null || to >= LAST ? [from] : [from, addDays(to, 1)],
  );
  const days = [...new Set([FIRST, ...starts])].sort();
  return days.flatMap((from, index) => {
    const next = days[index + 1];
    const was = rowInForce(before, from)?.rate ?? null;
    const becomes = rowInForce(after, from)?.rate ?? null;
    return was === becomes ? [] : [{ from, to: next === undefined ? LAST : addDays(next, -1), was, becomes }];
  });
}
