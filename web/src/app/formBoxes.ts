import type { PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import type { Packs } from "@fiscalon/core/model/packs";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { formOfRegistration } from "@fiscalon/core/returns/formOn";
import type { RegistrationView } from "@fiscalon/contract/views";
import { today } from "../kit/format.ts";

/** The form a registration files for a period; today's where the period has none. */
export function formNow(
  packs: Packs,
  registration: Pick<RegistrationView, "pack" | "levies" | "options" | keyof PeriodRule>,
  periodEnd = today(),
): ReturnForm {
  return formOfRegistration(packs.byId(registration.pack), registration, periodEnd);
}
