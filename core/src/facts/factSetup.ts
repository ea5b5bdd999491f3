import type { Packs } from "../model/packs.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import type { RegistrationSetup } from "../model/registration.ts";

/** What facts depend on beside the document. */
export interface FactSetup {
  packs: Packs;
  registrations: readonly RegistrationSetup[];
  schedules: RateSchedules;
  digits: number;
}
