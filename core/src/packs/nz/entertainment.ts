import type { SchemeDefinition } from "../../model/scheme.ts";
import { monthsFrom } from "../shared/attribution.ts";
import { yearlySettings } from "../shared/yearlySettings.ts";

/** Limited entertainment: claimed in full, half of it taken back once a year. */
export const entertainment: SchemeDefinition = {
  id: "nz-entertainment",
  name: "Entertainment, half taken back once a year",
  byStatus: true,
  levies: ["GST"],
  settings: yearlySettings(monthsFrom(3), { usual: 1, most: 5 }),
  conditions: [
    {
      says: "Entertainment of which half is deductible for income tax is bought with P15E.",
      source: "GSTA s 21I; Income Tax Act 2007 subpart DD",
    },
    {
      says: "The adjustment stands on the return that covers the day the income tax return is filed, or is due if that is earlier.",
      source: "GSTA s 21I",
    },
  ],
  note: "GST on entertainment is claimed as bills arrive; half of it goes to box 9 once a year.",
  source: "GSTA s 21I; from memory",
  rule: {
    kind: "yearly-add-back",
    codes: ["P15E"],
    share: { percent: "50" },
    settings: { yearEnds: "yearEnds", later: "later" },
    boxes: { GST: { box: "9", sign: 1 } },
  },
};
