import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

/** Yearly adjustments of what is used for taxable and other supplies, from memory of the law. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["GST"],
  kinds: [
    byCost("two", "above $10,000 to $20,000: two adjustments", 2, 10_000_01),
    byCost("five", "to $500,000: five", 5, 20_000_01),
    byCost("ten", "above $500,000: ten", 10, 500_000_01),
    byCost("land", "land: as long as it is held", 40, 0),
  ],
  time: "years",
  share: "to-date",
  yearEnds: { usual: 3, fixed: false },
  reported: "with",
  least: { points: "10", upTo: 1_000_00 },
  boxes: { GST: adjusted("+13", "+9") },
  suggested: [],
  says: "Of goods and services above $10,000 the taxable use is compared once a year with what was deducted; a change below 10 points and up to $1,000 is left alone.",
  source: "GSTA s 20(3C), 21 to 21H",
};
