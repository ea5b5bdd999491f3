import type { DeMinimisTest } from "../../model/attribution.ts";
import type { SchemeDefinition } from "../../model/scheme.ts";
import { SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";

const HALF: Pick<DeMinimisTest, "aMonth" | "share" | "shareOf"> = {
  aMonth: 625_00,
  share: "50",
  shareOf: "supplies",
};

/** Partial exemption, standard method. */
export const partialExemption: SchemeDefinition = {
  id: "gb-partial-exemption",
  name: "Partial exemption, standard method",
  levies: ["VAT"],
  settings: sharingSettings([3, 4, 5], "period", "next"),
  conditions: [
    {
      says: "Purchases are coded by what they serve: taxable supplies as usual, exempt ones with S20E, both with S20M or S5M.",
      source: "SI 1995/2518 reg. 101",
    },
    {
      says: "The tax year ends with March, April or May, as the quarters do.",
      source: "SI 1995/2518 reg. 99",
    },
    {
      says: "Where residual tax is above 400,000 a month on average the percentage is taken up to two decimals.",
      source: "SI 1995/2518 reg. 101(5)",
    },
  ],
  note: "Tax on mixed use is deducted by the share of taxable supplies, taken up to a whole percent; all is deducted within the de minimis limits, and the tax year is worked out again as a whole.",
  source: "SI 1995/2518 part XIV; VAT Notice 706",
  rule: {
    kind: "attribution",
    residual: ["S20M", "S5M"],
    exempt: ["S20E"],
    ratio: {
      of: "supplies",
      taxable: ["standard", "reduced", "zero", "export", "intra-union", "reverse-charge-supplier", "margin"],
      exempt: ["exempt"],
      leftOut: ["SA20", "FSC", "OWN"],
    },
    rounding: { mode: "up", decimals: 0, finer: { above: 400_000_00, decimals: 2 } },
    deMinimis: [
      {
        measure: "input",
        ...HALF,
        says: "all input tax is up to 625 a month and exempt supplies up to half",
      },
      {
        measure: "not-taxable-input",
        ...HALF,
        says: "input tax that does not serve taxable supplies is up to 625 a month and exempt supplies up to half",
      },
      {
        measure: "exempt-input",
        aMonth: 625_00,
        share: "50",
        shareOf: "input",
        says: "exempt input tax is up to 625 a month and up to half of all",
      },
    ],
    settings: SHARED_SETTINGS,
    boxes: { VAT: sharingBoxes("-4", "+4", "+4", "-4") },
  },
};
