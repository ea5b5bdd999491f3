import type { SchemeDefinition } from "../../model/scheme.ts";
import { SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";

/** Partial exemption: residual input tax by the share of taxable supplies. */
export const partialExemption: SchemeDefinition = {
  id: "sg-partial-exemption",
  name: "Partial exemption",
  levies: ["GST"],
  settings: sharingSettings([3, 2, 1], "period", "next"),
  conditions: [
    {
      says: "Purchases are coded by what they serve: taxable supplies as usual, exempt ones with PX, both with PRM. Supplies of regulation 33 and sales of assets are left out of the share.",
      source: "GST (General) Regulations, reg. 29 and 30",
    },
  ],
  note: "Residual input tax is claimed by the share of taxable supplies to two decimals; all of it where exempt supplies are up to 40,000 a month and 5 % of all. The year is worked out again as a whole.",
  source: "GST (General) Regulations, reg. 28 to 35; from memory",
  rule: {
    kind: "attribution",
    residual: ["PRM"],
    exempt: ["PX"],
    ratio: {
      of: "supplies",
      taxable: ["standard", "zero", "export"],
      exempt: ["exempt"],
      leftOut: ["E33"],
    },
    rounding: { mode: "down", decimals: 2 },
    deMinimis: [
      {
        measure: "exempt-supplies",
        aMonth: 40_000_00,
        share: "5",
        shareOf: "supplies",
        says: "exempt supplies are up to 40,000 a month and 5 % of all",
      },
    ],
    settings: SHARED_SETTINGS,
    boxes: { GST: sharingBoxes("-7", "+7", "+7", "-7") },
  },
};
