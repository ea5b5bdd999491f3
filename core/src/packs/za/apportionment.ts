import type { SchemeDefinition } from "../../model/scheme.ts";
import { monthsFrom, SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";

/** Apportionment by turnover. */
export const apportionment: SchemeDefinition = {
  id: "za-apportionment",
  name: "Apportionment by turnover",
  levies: ["VAT"],
  settings: sharingSettings(monthsFrom(2), "year-before", "next"),
  conditions: [
    {
      says: "Purchases of mixed use are coded P15M; what serves exempt supplies only is not claimed.",
      source: "VAT Act s. 17(1)",
    },
    { says: "Another method needs a ruling.", source: "VAT Act s. 17(1), BGR 16" },
  ],
  note: "Input tax of mixed use is claimed by the turnover percentage of the year before, to two decimals and all of it from 95 %; after the year the difference goes to fields 12 and 18.",
  source: "VAT Act s. 17(1); Binding General Ruling 16; from memory",
  rule: {
    kind: "attribution",
    residual: ["P15M"],
    exempt: [],
    ratio: {
      of: "supplies",
      taxable: ["standard", "zero", "export"],
      exempt: ["exempt", "out-of-scope"],
      leftOut: [],
    },
    rounding: { mode: "half-up", decimals: 2 },
    full: "95",
    settings: SHARED_SETTINGS,
    boxes: { VAT: sharingBoxes("-15", "+15", "+18", "+12") },
  },
};
