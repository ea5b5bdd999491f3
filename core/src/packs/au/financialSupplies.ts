import type { SchemeDefinition } from "../../model/scheme.ts";

/** The financial acquisitions threshold: below it credits for financial supplies are not refused. */
export const financialSupplies: SchemeDefinition = {
  id: "au-financial-supplies",
  name: "Financial acquisitions threshold",
  byStatus: true,
  levies: ["GST"],
  settings: [],
  conditions: [
    {
      says: "Purchases for financial supplies are coded PIF, listed services R75 or R55.",
      source: "GSTA s 11-15, Div 70",
    },
    {
      says: "It is tested for the last twelve months; whether the next twelve would exceed it is estimated by hand.",
      source: "GSTA s 189-5, 189-10",
    },
  ],
  note: "As long as credits for financial acquisitions of twelve months are up to $150,000 and 10 % of all, they are deducted in full; above it nothing but the reduced credits is.",
  source: "GSTA Div 189; from memory",
  rule: {
    kind: "attribution",
    residual: [],
    exempt: ["PIF", "R75", "R55"],
    ratio: { of: "inputs", taxable: [], exempt: [], leftOut: [] },
    deMinimis: [
      {
        measure: "exempt-input",
        aMonth: 12_500_00,
        share: "10",
        shareOf: "input",
        months: 12,
        says: "credits for financial acquisitions of twelve months are up to 150,000 and 10 % of all",
      },
    ],
    byHand: true,
    boxes: {
      GST: {
        refused: { box: "1B", sign: -1 },
        allowed: { box: "1B", sign: 1 },
        more: { box: "1B", sign: 1 },
        less: { box: "1A", sign: 1 },
      },
    },
  },
};
