import { addDays } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { filingPeriodOn } from "../calendar/filingPeriods.ts";
import type { FilingPeriod, PeriodRule } from "../calendar/filingPeriods.ts";

/** Where a fact is reported. `own` is the period of its tax point; `reported` differs when that one is sealed. */
export interface PeriodAssignment {
  own: FilingPeriod;
  reported: FilingPeriod;
  late: boolean;
}

/**
 * The period a fact belongs to: the one of its tax point or, when that is sealed, the next one that is not.
 * A fact so moved is a late item and keeps its own period on record.
 * @param sealed ends of the periods that accept nothing any more
 * @returns undefined when the registration is not in force on the tax point, or no later period exists
 */
export function assignPeriod(
  rule: PeriodRule,
  taxPoint: CalendarDate,
  sealed: ReadonlySet<CalendarDate>,
): PeriodAssignment | undefined {
  const period = filingPeriodOn(rule, taxPoint);
  let reported = period;
  while (reported && sealed.has(reported.to)) reported = filingPeriodOn(rule, addDays(reported.to, 1));
  if (!period || !reported) return undefined;
  return { own: period, reported, late: period.to !== reported.to };
}
