import type { SchemeDefinition } from "../../model/scheme.ts";
import { POOL_SETTINGS } from "../shared/marginPool.ts";

/** Low-value margin goods: the margin of a period's pool. */
export const lowValuePool: SchemeDefinition = {
  id: "ie-low-value-pool",
  name: "Low-value margin goods",
  levies: ["VAT"],
  settings: POOL_SETTINGS,
  conditions: [
    { says: "Margin goods bought for 635 or less a piece.", source: "VATCA 2010 s.87(8)" },
    {
      says: "A piece sold for more than 635 leaves the pool: take its cost off with a credit note, and sell it by the piece.",
      source: "VATCA 2010 s.87(8); from memory",
    },
  ],
  note: "Sell with MPS and buy with MPP; invoices show no tax. T1 holds the tax inside the margin of the whole period; a negative margin is carried on.",
  source: "VATCA 2010 s.87(8)",
  rule: {
    kind: "margin-pool",
    sales: ["MPS"],
    purchases: ["MPP"],
    rate: "ie.STD",
    upTo: 635_00,
    settings: { openingStock: "openingStock", brought: "brought" },
    boxes: { tax: "T1" },
  },
};
