import type { CalendarDate } from "../calendar/date.ts";
import type { PeriodRule, RhythmChange } from "../calendar/filingPeriods.ts";
import type { Basis, BasisChange } from "./basis.ts";
import type { Rounding } from "./rounding.ts";

/** What a registration changes from a day on: its rhythm, and its basis where that is said. */
export type RegistrationChange = RhythmChange & BasisChange;

/** What the computation needs to know of a registration. */
export interface RegistrationSetup extends PeriodRule {
  id: number;
  pack: string;
  levies: readonly string[];
  basis: Basis;
  changes?: readonly RegistrationChange[];
  rounding: Rounding;
  /** What the registration chose of the options its pack offers, by option. */
  options?: Readonly<Record<string, string>>;
}

/**
 * The registration for a levy in force on a day, or undefined. Two countries may call their levies alike: `pack` is
 * the one the code comes from, where it comes from one.
 */
export function registrationFor<T extends RegistrationSetup>(
  registrations: readonly T[],
  levy: string,
  on: CalendarDate,
  pack?: string,
): T | undefined {
  return registrations.find(
    (r) =>
      r.levies.includes(levy) &&
      r.from <= on &&
      (r.to === null || on <= r.to) &&
      (pack === undefined || r.pack === pack),
  );
}
