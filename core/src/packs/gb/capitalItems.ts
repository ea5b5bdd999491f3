import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

/** Capital goods scheme, from memory of the law. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["VAT"],
  kinds: [
    byCost("land", "land, building or civil engineering work", 10, 250_000_00),
    byCost("ship", "ship, boat or aircraft", 5, 50_000_00),
    byCost("computer", "computer or part of one", 5, 50_000_00),
  ],
  time: "years",
  share: "typed",
  yearEnds: { usual: 3, fixed: false },
  reported: "second",
  boxes: { VAT: adjusted("+4", "-4") },
  suggested: ["CAP20"],
  says: "The tax of a capital item follows its use over ten intervals (a ship, an aircraft, a computer five) that end with the tax year: a tenth or a fifth by the change of its share, on the second return after the interval.",
  source: "SI 1995/2518 part XV; VAT Notice 706/2; from memory",
};
