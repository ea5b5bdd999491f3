import type { CalendarDate } from "../calendar/date.ts";
import type { PeriodRule } from "../calendar/filingPeriods.ts";
import type { Rounding } from "./rounding.ts";

/** When tax is reported: at the tax point, as paid, or sales at the tax point and purchases as paid. */
export type Basis = "accrual" | "cash" | "hybrid";

/** What the computation needs to know of a registration. */
export interface RegistrationSetup extends PeriodRule {
  id: number;
  pack: string;
  levies: readonly string[];
  basis: Basis;
  rounding: Rounding;
  /** What the registration chose of the options its pack offers, by option. */
  options?: Readonly<Record<string, string>>;
}

/** The basis a registration reports on, on a day: the last change of it, or the one it began with. */
export function basisOn(
  { basis, changes = [] }: Pick<RegistrationSetup, "basis" | "changes">,
  on: CalendarDate,
): Basis {
  return changes.filter((change) => change.from <= on && change.basis !== undefined).at(-1)?.basis ?? basis;
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
