import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted } from "../shared/capitalItems.ts";

const LEAST_TAX = 1_000_00;

/** Correction of input tax over years, § 15a. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["VAT"],
  kinds: [
    { id: "immovable", name: "land and buildings", years: 10, from: LEAST_TAX, of: "tax" },
    { id: "other", name: "other asset", years: 5, from: LEAST_TAX, of: "tax" },
  ],
  time: "months-of-years",
  share: "typed",
  yearEnds: { usual: 12, fixed: true },
  reported: "with",
  least: { points: "10", upTo: 1_000_00 },
  boxes: { VAT: adjusted("+64", "-64") },
  suggested: [],
  says: "The tax of an asset follows its use for five years, of land and buildings for ten: each calendar year by its months and the change of the share. A change below ten points that comes to 1,000 a year or less is left alone.",
  source: "UStG § 15a; UStDV §§ 44, 45",
};
