import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

/** Changes in the extent of creditable purpose. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["GST"],
  kinds: [
    byCost("two", "from $1,001 to $5,000: two adjustment periods", 2, 1_001_00),
    byCost("five", "from $5,001 to $499,999: five", 5, 5_001_00),
    byCost("ten", "$500,000 or more: ten", 10, 500_000_00),
  ],
  time: "years",
  share: "to-date",
  yearEnds: { usual: 6, fixed: true },
  wait: 12,
  reported: "with",
  boxes: { GST: adjusted("+1B", "+1A") },
  suggested: [],
  says: "Of a purchase above $1,000 the planned and the actual use are compared in each tax period that ends with June, from a year after the purchase: the whole credit follows the use up to then.",
  source: "GSTA Div 129",
};
