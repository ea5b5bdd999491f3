import type { CapitalItems } from "../../model/capitalItem.ts";
import { adjusted, byCost } from "../shared/capitalItems.ts";

/** Capital goods scheme of property. */
export const capitalItems: CapitalItems = {
  kind: "capital-items",
  levies: ["VAT"],
  kinds: [byCost("property", "property", 20, 0), byCost("refurbishment", "refurbishment", 10, 0)],
  time: "first-year",
  share: "typed",
  yearEnds: { usual: 12, fixed: false },
  reported: "next",
  boxes: { VAT: adjusted("+T2", "-T2") },
  suggested: [],
  says: "The tax of a property follows its use over 20 intervals (a refurbishment 10): the first twelve months, then to each end of the accounting year; a twentieth by the change of its share, on the return after the interval.",
  source: "VATCA 2010 s.63, 64",
};
