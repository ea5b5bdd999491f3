import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

/** Yearly adjustments of the taxable use of capital goods, from memory of the law. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["VAT"],
  kinds: [
    byCost("goods", "capital goods or services of R40,000 or more: as long as they are held", 40, 40_000_00),
  ],
  time: "years",
  share: "to-date",
  yearEnds: { usual: 2, fixed: false },
  reported: "with",
  least: { points: "10.000001" },
  boxes: { VAT: adjusted("+16", "+12") },
  suggested: ["P15K", "SHK", "IMK"],
  says: "Of capital goods of R40,000 or more the taxable use of each tax year is compared with what was deducted; a change of 10 points or less is left alone. Where the market value is below the cost, the tax of the market value is listed.",
  source: "Act s. 18(2), 18(5)",
};
