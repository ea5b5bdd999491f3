import type { SchemeDefinition } from "../../model/scheme.ts";
import { monthsFrom, SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";

/** Apportionment of residual input tax by the input method. */
export const apportionment: SchemeDefinition = {
  id: "ae-apportionment",
  name: "Apportionment of input tax",
  levies: ["VAT"],
  settings: sharingSettings(monthsFrom(12), "period", "next"),
  conditions: [
    {
      says: "Purchases are coded by what they serve: taxable supplies as usual, exempt ones with P5E, both with P5M.",
      source: "Executive Regulation art. 55",
    },
    {
      says: "Where the result differs from actual use by more than 250,000 in a year, adjust to actual use in 9.j.",
      source: "Executive Regulation art. 55(9)",
    },
  ],
  note: "Residual input tax is recovered by the share of input tax that serves taxable supplies, to the nearest whole percent; after the tax year the difference goes to the adjustment of box 9.",
  source: "Executive Regulation art. 55; from memory",
  rule: {
    kind: "attribution",
    residual: ["P5M"],
    exempt: ["P5E"],
    ratio: { of: "inputs", taxable: [], exempt: [], leftOut: [] },
    rounding: { mode: "half-up", decimals: 0 },
    settings: SHARED_SETTINGS,
    boxes: { VAT: sharingBoxes("-9.v", "+9.v", "+9.j", "-9.j") },
  },
};
