import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";

/** The jurisdictions that ship. */
export const PACKS = new Packs(SHIPPED);
