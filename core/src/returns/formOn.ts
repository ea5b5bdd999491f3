import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { rhythmOn } from "../calendar/filingPeriods.ts";
import type { Frequency, PeriodRule } from "../calendar/filingPeriods.ts";
import { FiscalError } from "../errors.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import { optionsOn } from "../model/registration.ts";
import type { RegistrationSetup } from "../model/registration.ts";
import type { ReturnForm } from "../model/returnForm.ts";

/** What of a registration decides its form. */
export interface FormChoice {
  levies: readonly string[];
  options?: Readonly<Record<string, string>> | undefined;
  /** How often it files; where it is not said any form of the levies may be meant. */
  frequency?: Frequency | undefined;
}

/**
 * The version of the return form for a period that ends on `periodEnd`: of the forms whose levies the registration
 * all holds, one for an option it chose before the others, then the one with most levies.
 * @throws FiscalError `returns/no-form`
 */
export function formOn(
  pack: JurisdictionPack,
  periodEnd: CalendarDate,
  { levies, options, frequency }: FormChoice = {
    levies: pack.defaultLevies ?? pack.levies.map((one) => one.levy),
  },
): ReturnForm {
  const [form] = pack.forms
    .filter((f) => f.from <= periodEnd && (f.to === null || periodEnd <= f.to))
    .filter((f) => f.levies.every((levy) => levies.includes(levy)))
    .filter((f) => frequency === undefined || (f.frequencies?.includes(frequency) ?? true))
    .filter((f) => f.option === undefined || options?.[f.option[0]] === f.option[1])
    .sort(
      (a, b) =>
        Number(b.option !== undefined) - Number(a.option !== undefined) || b.levies.length - a.levies.length,
    );
  if (form) return form;
  throw new FiscalError(
    "returns/no-form",
    `The ${pack.name} pack has no form for ${levies.join(", ")} and a period ending ${displayDate(periodEnd)}.`,
  );
}

/**
 * The form a registration files for a period: by its levies, and by its rhythm and choices at the end of it.
 * @throws FiscalError `returns/no-form`
 */
export function formOfRegistration(
  pack: JurisdictionPack,
  registration: PeriodRule & Pick<RegistrationSetup, "levies" | "options" | "changes">,
  periodEnd: CalendarDate,
): ReturnForm {
  return formOn(pack, periodEnd, {
    levies: registration.levies,
    options: optionsOn(pack, registration, periodEnd),
    frequency: rhythmOn(registration, periodEnd).frequency,
  });
}
