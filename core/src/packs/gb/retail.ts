import { RETAIL_METHODS } from "../../model/retailTakings.ts";
import type { SchemeDefinition, SchemeSetting } from "../../model/scheme.ts";

const amount = (id: string, name: string): SchemeSetting => ({ id, name, holds: "amount", values: [] });

/** Retail schemes. */
export const retail: SchemeDefinition = {
  id: "gb-retail",
  name: "Retail scheme",
  levies: ["VAT"],
  excludes: ["gb-flat-rate"],
  settings: [
    {
      id: "method",
      name: "Method",
      values: Object.entries(RETAIL_METHODS).map(([value, name]) => ({ value, name })),
    },
    {
      id: "minority",
      name: "Direct calculation: the goods that are fewer",
      values: [
        { value: "zero", name: "zero-rated" },
        { value: "standard", name: "standard-rated" },
      ],
    },
    amount("openingStandard", "Apportionment 2: standard-rated stock when it begins, at selling price"),
    amount("openingReduced", "Apportionment 2: reduced-rated stock when it begins, at selling price"),
    amount("openingZero", "Apportionment 2: zero-rated stock when it begins, at selling price"),
    amount(
      "openingStock",
      "Direct calculation 2: stock of the fewer goods when its year begins, at selling price",
    ),
    amount(
      "closingStock",
      "Direct calculation 2: stock of the fewer goods when its year ends, at selling price",
    ),
  ],
  conditions: [
    {
      says: "Retail turnover of 100 million or less, without tax; 1 million for apportionment 1 and direct calculation 1.",
      source: "VAT Notice 727, sections 4 and 5; from memory",
      limit: { upTo: 100_000_000_00, of: "net" },
    },
    {
      says: "It stays for twelve months, and is changed at the end of its year.",
      source: "VAT Notice 727, section 2; from memory",
    },
    {
      says: "Catering, services and goods made by the trader are not shared: their takings are coded by rate.",
      source: "VAT Notice 727/3",
    },
  ],
  note: "Takings are booked with RT, or with RT20, RT5 and RT0 where the rate is known at the till; goods for resale with GR20, GR5 and GR0, or GE20, GE5 and GE0 with their expected selling price. The return works the tax out once a rate.",
  source: "SI 1995/2518 part IX; VAT Notices 727, 727/3, 727/4 and 727/5",
  rule: {
    kind: "retail-takings",
    takings: "RT",
    rates: [
      { id: "standard", schedule: "gb.STD", takings: "RT20", goods: ["GR20", "GE20"] },
      { id: "reduced", schedule: "gb.RED", takings: "RT5", goods: ["GR5", "GE5"] },
      { id: "zero", takings: "RT0", goods: ["GR0", "GE0"] },
    ],
    price: "sellingPrice",
    settings: {
      method: "method",
      minority: "minority",
      opening: ["openingStandard", "openingReduced", "openingZero"],
      openingStock: "openingStock",
      closingStock: "closingStock",
    },
    boxes: { tax: "1", lessTax: "6" },
  },
};
