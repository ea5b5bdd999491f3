import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import type { ReturnForm } from "@fiscalon/core/returns/returnForm";
import type { RegistrationView } from "@fiscalon/contract/views";
import { today } from "./format.ts";

/** The form a registration files for a period; today's where the period has none. */
export function formOfRegistration(
  { pack, levies, options }: Pick<RegistrationView, "pack" | "levies" | "options">,
  periodEnd = today(),
): ReturnForm {
  return formOn(packById(pack), periodEnd, { levies, options });
}

/** The box that shows what is owed. */
export function shownBox(registration: RegistrationView, periodEnd: string): string {
  return formOfRegistration(registration, periodEnd).net.shown;
}
