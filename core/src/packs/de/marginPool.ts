import type { SchemeDefinition } from "../../model/scheme.ts";
import { POOL_SETTINGS } from "../shared/marginPool.ts";

/** Gesamtdifferenz: the margin of all cheap goods of a period. */
export const totalMargin: SchemeDefinition = {
  id: "de-total-margin",
  name: "Margin of a period (Gesamtdifferenz)",
  levies: ["VAT"],
  settings: POOL_SETTINGS,
  conditions: [
    {
      says: "Goods bought for 750 or less a piece.",
      source: "UStG § 25a(4), from memory of the limit since 2025",
    },
    {
      says: "The same way for all such goods for a calendar year at least.",
      source: "UStAE 25a.1(14); from memory",
    },
  ],
  note: "Sell with MP19 and buy with MPG; invoices show no tax. Kz 81 holds the margin of the period without its tax.",
  source: "UStG § 25a(4)",
  rule: {
    kind: "margin-pool",
    sales: ["MP19"],
    purchases: ["MPG"],
    rate: "eu-de.STD",
    upTo: 750_00,
    settings: { openingStock: "openingStock", brought: "brought" },
    boxes: { margin: "81" },
  },
};
