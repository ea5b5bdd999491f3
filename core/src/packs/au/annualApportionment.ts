import type { SchemeDefinition } from "../../model/scheme.ts";
import { yearlySettings } from "../shared/yearlySettings.ts";

/** Annual apportionment of purchases that are private in part. */
export const annualApportionment: SchemeDefinition = {
  id: "au-annual-apportionment",
  name: "Annual apportionment of private use",
  byStatus: true,
  levies: ["GST"],
  settings: yearlySettings([6], { usual: 1, most: 5 }),
  conditions: [
    {
      says: "Turnover of the last twelve months is below $10 million, or the business is a small one for income tax.",
      source: "GSTA s 131-5",
      limit: { upTo: 10_000_000_00, of: "net" },
    },
    {
      says: "GST is not paid by instalments.",
      source: "GSTA s 131-5",
    },
    {
      says: "It is for purchases that are partly private (P10Y, C10Y), not for those of input-taxed supplies.",
      source: "GSTA s 131-50",
    },
    {
      says: "The adjustment stands on a return that ends not later than the income tax return of the year is due.",
      source: "GSTA s 131-60",
    },
  ],
  note: "Credits on what is partly private are claimed in full while the year runs; the private part is one increasing adjustment in 1A.",
  source: "GSTA Div 131",
  rule: {
    kind: "yearly-add-back",
    codes: ["P10Y", "C10Y"],
    share: { attribute: "privateShare" },
    settings: { yearEnds: "yearEnds", later: "later" },
    boxes: { GST: { box: "1A", sign: 1 } },
  },
};
