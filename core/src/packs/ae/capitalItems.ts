import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

const FROM = 5_000_000_00;

/** Capital assets scheme. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["VAT"],
  kinds: [
    byCost("building", "building or part of one", 10, FROM),
    byCost("other", "other capital asset", 5, FROM),
  ],
  time: "years",
  share: "typed",
  yearEnds: { usual: 12, fixed: false },
  reported: "next",
  boxes: { VAT: adjusted("+9.j", "-9.j") },
  suggested: ["P5K"],
  says: "The tax of an asset of AED 5,000,000 or more follows its use: each tax year a tenth (a building) or a fifth of it by the change of its share, on the first return of the next tax year; what is left when it is sold, on the return of that day.",
  source: "Law (AE) art. 60; ER art. 57, 58",
};
