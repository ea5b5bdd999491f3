import type { CountryUnion } from "../../model/pack.ts";
import { UNION_MEMBERS } from "./members.ts";
import { checkUnionNumber } from "./vatNumber.ts";

/** The European Union as its members, and the country that left it with rules of its own for one region, see it. */
export const EUROPEAN_UNION: CountryUnion = {
  name: "European Union",
  members: UNION_MEMBERS,
  checkNumber: checkUnionNumber,
};
