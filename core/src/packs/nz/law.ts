import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "apportionment and its yearly adjustment",
    "provisional tax by the ratio method",
    "statements of marketplace operators",
  ],
  ["Late input tax after two years", "the cases that are excepted", "GSTA s 20(3)"],
  ["Change of basis", "the return on which the adjustment stands", "GSTA s 19C, IR375"],
  ["Marketplace services", "opt-out and sections", "GSTA s 8C and 60C"],
  ["Anniversary days of the provinces", "they do not move a due day here", "Inland Revenue"],
);
