import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import { today } from "./format.ts";

/** Which boxes of a pack's form hold what is owed, what is reclaimed, and the net. */
export function formBoxes(pack: string): { payable: string; reclaimed: string; shown: string } {
  return formOn(packById(pack), today()).net;
}
