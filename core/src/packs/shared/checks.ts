import type { PackCheck } from "../../model/pack.ts";

/** A reverse charge that shows on one side of the return only. */
export const BOTH_SIDES: PackCheck = {
  id: "self-assessed",
  kind: "both-sides",
  says: "{where}: code {code} puts the {tax} on one side of the return only. Correct the code.",
};
