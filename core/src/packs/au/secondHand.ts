import type { SchemeDefinition } from "../../model/scheme.ts";

/** Credits on second-hand goods bought from sellers who charge no GST, and the pool of lots sold in parts. */
export const secondHand: SchemeDefinition = {
  id: "au-second-hand",
  name: "Second-hand goods",
  byStatus: true,
  levies: ["GST"],
  settings: [
    { id: "pool", name: "In the pool of lots before it began in these books", holds: "amount", values: [] },
  ],
  conditions: [
    {
      says: "Goods are bought to be sold again in the ordinary course of business, not for hire or manufacture; no precious metals, animals or plants.",
      source: "GSTA s 66-5 and s 195-1",
    },
    {
      says: "The seller's name and address, the day, what was bought and for how much are on record.",
      source: "GSTA s 66-17",
    },
  ],
  note: "Goods that cost more than 300 are bought with P2S and sold with S2, whose line tells what they cost, or names the piece of the stock book: an eleventh of it is credited in 1B on the sale, at most the GST on it. Lots to be sold in parts are bought with P2L and their parts sold with S2L: GST on the parts is kept out of 1A until an eleventh of the lots is used up.",
  source: "GSTA Div 66",
  rule: {
    kind: "resale-credit",
    levy: "GST",
    sales: ["S2"],
    upTo: 300_00,
    part: { of: 1, parts: 11 },
    lots: { bought: ["P2L"], sold: ["S2L"] },
    setting: "pool",
    boxes: { credit: "1B", kept: "1A" },
  },
};
