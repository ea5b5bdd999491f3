import type { AttributionBoxes } from "../../model/attribution.ts";
import type { SchemeDefinition } from "../../model/scheme.ts";
import { monthsFrom, SHARED_SETTINGS, sharingBoxes, sharingSettings } from "../shared/attribution.ts";
import { SLABS } from "./rates.ts";

/** Levies and the columns of a return they stand in. */
export const HEADS = { IGST: "igst", CGST: "cgst", SGST: "sgst", UTGST: "sgst", CESS: "cess" };

const boxes: Record<string, AttributionBoxes> = Object.fromEntries(
  Object.entries(HEADS).map(([levy, head]) => [
    levy,
    sharingBoxes(`+4B1.${head}`, `-4B1.${head}`, `+4A5.${head}`, `+4B1.${head}`),
  ]),
);

/** Common credit: rule 42, per head. */
export const commonCredit: SchemeDefinition = {
  id: "in-common-credit",
  name: "Common credit, rule 42",
  levies: ["IGST", "CGST", "SGST", "CESS"],
  settings: [
    ...sharingSettings(monthsFrom(3), "period", "next"),
    {
      id: "private",
      name: "Private use of common credit",
      values: [
        { value: "no", name: "none" },
        { value: "yes", name: "some: 5 % more is reversed" },
      ],
    },
  ],
  conditions: [
    {
      says: "Purchases of common use are coded PM with their slab, those only for exempt supplies PX.",
      source: "CGST Rules R.42(1)",
    },
  ],
  note: "Of credit for common use the share of exempt turnover is reversed in 4B1, head by head, and again for the year as a whole. Interest on what fell short is typed in 5.1.",
  source: "CGST Rules R.42",
  rule: {
    kind: "attribution",
    residual: SLABS.map(({ value }) => `PM${value}`),
    exempt: [],
    ratio: {
      of: "supplies",
      taxable: ["standard", "export", "margin"],
      exempt: ["zero", "exempt", "out-of-scope", "reverse-charge-supplier"],
      levies: ["CGST", "IGST"],
      leftOut: ["OS", "ECO5", "CS", "CX"],
    },
    idle: true,
    byHand: true,
    private: { setting: "private", value: "yes", percent: "5" },
    settings: SHARED_SETTINGS,
    boxes,
  },
};
