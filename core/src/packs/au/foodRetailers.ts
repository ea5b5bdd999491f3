import type { PercentageSplit } from "../../model/percentageSplit.ts";
import type { SchemeDefinition } from "../../model/scheme.ts";

/** Business norms: the percentages of sales and of stock bought that are GST-free. From memory. */
const NORMS: [id: string, name: string, norm: PercentageSplit["norms"][string]][] = [
  ["hot-bread", "hot bread shop that converts", { sales: "50", stock: "75" }],
  ["cake", "cake shop", { sales: "2", stock: "95" }],
  ["delicatessen", "continental delicatessen", { sales: "85", stock: "90" }],
];

/** Simplified accounting methods of food retailers. */
export const foodRetailers: SchemeDefinition = {
  id: "au-food-retailers",
  name: "Simplified accounting of food retailers",
  byStatus: true,
  levies: ["GST"],
  settings: [
    {
      id: "trade",
      name: "Percentages",
      values: [
        ...NORMS.map(([value, name]) => ({ value, name: `business norms, ${name}` })),
        { value: "own", name: "of a snapshot or a sample, typed here" },
      ],
    },
    { id: "salesFree", name: "GST-free of sales, percent", holds: "amount", values: [] },
    { id: "stockFree", name: "GST-free of stock bought, percent", holds: "amount", values: [] },
  ],
  conditions: [
    {
      says: "Turnover of the last twelve months is up to $2 million.",
      source: "GSTA s 123-7",
      limit: { upTo: 2_000_000_00, of: "net" },
    },
    {
      says: "Food that bears GST and food that does not are sold from the same premises, without adequate point-of-sale equipment.",
      source: "GSTA s 123-5",
    },
    {
      says: "It is chosen for twelve months, from the first day of a period.",
      source: "GSTA s 123-10, 123-15",
    },
  ],
  note: "Takings are coded ST and stock bought for resale PT, with tax: fixed percentages of both are GST-free, an eleventh of the rest is the GST. Other purchases are coded as usual.",
  source: "GSTA Div 123; percentages from memory",
  rule: {
    kind: "percentage-split",
    levy: "GST",
    rate: "au.GST",
    setting: "trade",
    norms: Object.fromEntries(NORMS.map(([id, , norm]) => [id, norm])),
    own: { sales: "salesFree", stock: "stockFree" },
    sales: { codes: ["ST"], boxes: { tax: { box: "1A", sign: 1 }, free: { box: "G3", sign: 1 } } },
    stock: { codes: ["PT"], boxes: { tax: { box: "1B", sign: 1 }, free: { box: "G14", sign: 1 } } },
  },
};
