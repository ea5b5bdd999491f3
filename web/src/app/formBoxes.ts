import type { Packs } from "@fiscalon/core/model/packs";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { formOn } from "@fiscalon/core/returns/formOn";
import type { RegistrationView } from "@fiscalon/contract/views";
import { today } from "../kit/format.ts";

/** The form a registration files for a period; today's where the period has none. */
export function formOfRegistration(
  packs: Packs,
  { pack, levies, options }: Pick<RegistrationView, "pack" | "levies" | "options">,
  periodEnd = today(),
): ReturnForm {
  return formOn(packs.byId(pack), periodEnd, { levies, options });
}

/** The box that shows what is owed. */
export function shownBox(packs: Packs, registration: RegistrationView, periodEnd: string): string {
  return formOfRegistration(packs, registration, periodEnd).net.shown;
}
