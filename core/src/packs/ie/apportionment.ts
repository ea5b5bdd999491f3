import type { SchemeDefinition } from "../../model/scheme.ts";
import { monthsFrom, SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";

/** Dual-use inputs, by turnover. */
export const apportionment: SchemeDefinition = {
  id: "ie-apportionment",
  name: "Dual-use inputs, by turnover",
  levies: ["VAT"],
  settings: sharingSettings(monthsFrom(12), "year-before", "next"),
  conditions: [
    {
      says: "Purchases of mixed use are coded S23M; what serves exempt supplies only is not deducted.",
      source: "VATCA 2010 s.61",
    },
    {
      says: "The share must reflect the use of the inputs and the range of activities; otherwise another method is agreed.",
      source: "VATCA 2010 s.61(5); VAT Regulations 2010 reg. 17",
    },
  ],
  note: "Tax on mixed use is deducted by an estimate and reviewed once the accounting year is over; the difference goes to T2 of the period after.",
  source: "VATCA 2010 s.61; VAT Regulations 2010 reg. 17; from memory",
  rule: {
    kind: "attribution",
    residual: ["S23M"],
    exempt: [],
    ratio: {
      of: "supplies",
      taxable: ["standard", "reduced", "zero", "export", "intra-union", "reverse-charge-supplier", "margin"],
      exempt: ["exempt"],
      leftOut: [],
    },
    rounding: { mode: "half-up", decimals: 2 },
    settings: SHARED_SETTINGS,
    boxes: { VAT: sharingBoxes("-T2", "+T2", "+T2", "-T2") },
  },
};
