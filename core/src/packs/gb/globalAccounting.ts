import type { SchemeDefinition } from "../../model/scheme.ts";
import { CLOSING_STOCK, POOL_SETTINGS } from "../shared/marginPool.ts";

/** Global accounting: the margin scheme over a period's pool of cheap goods. */
export const globalAccounting: SchemeDefinition = {
  id: "gb-global-accounting",
  name: "Global accounting",
  levies: ["VAT"],
  settings: [...POOL_SETTINGS, CLOSING_STOCK],
  conditions: [
    {
      says: "Goods that may be on the margin scheme and cost 500 or less a piece.",
      source: "VAT Notice 718, section 14; from memory",
    },
    {
      says: "Not vehicles, motorcycles, caravans, aircraft, boats, outboard motors, horses and ponies.",
      source: "VAT Notice 718, section 14; from memory",
    },
    {
      says: "What is lost, or taken out of the pool, comes off the purchases with a credit note of the same code.",
      source: "VAT Notice 718, section 14; from memory",
    },
  ],
  note: "Sell with GAS and buy with GAP; invoices show no tax. The return holds the tax inside the margin of the whole period; a negative margin is carried on.",
  source: "SI 1995/1268 art. 13; VAT Notice 718, section 14",
  rule: {
    kind: "margin-pool",
    sales: ["GAS"],
    purchases: ["GAP"],
    rate: "gb.STD",
    upTo: 500_00,
    settings: { openingStock: "openingStock", brought: "brought", closingStock: "closingStock" },
    closingAbove: 1_000_00,
    boxes: { tax: "1", lessTax: "6" },
  },
};
