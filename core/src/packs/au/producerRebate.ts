import type { SchemeDefinition } from "../../model/scheme.ts";

/** Producer rebate of the wine equalisation tax. */
export const producerRebate: SchemeDefinition = {
  id: "au-producer-rebate",
  name: "Producer rebate of wine tax",
  byStatus: true,
  levies: ["WET"],
  settings: [
    {
      id: "claimed",
      name: "Claimed since 1 July before it began in these books",
      holds: "amount",
      values: [],
    },
  ],
  conditions: [
    {
      says: "At least 85 % of the source product was owned from before crushing until bottling.",
      source: "WETA s 19-5, since 1 July 2018",
    },
    {
      says: "The wine is in containers of 5 litres or less (cider, perry: 51) with a trade mark of the producer; other wine is sold with WWN.",
      source: "WETA s 19-5, since 1 July 2018",
    },
    {
      says: "Associated producers share one cap: enter what the others claimed as claimed before.",
      source: "WETA s 19-15",
    },
  ],
  note: "Wine tax of wholesale and retail sales and of own use is given back in 1D up to the cap of the financial year; nothing for sales under a quote.",
  source: "WETA Div 19",
  rule: {
    kind: "yearly-rebate",
    levy: "WET",
    codes: ["WW", "WR", "WA", "WU"],
    caps: [
      { from: "2004-10-01", amount: 500_000_00, source: "WETA s 19-15, before July 2018" },
      { from: "2018-07-01", amount: 350_000_00, source: "WETA s 19-15" },
      {
        from: "2026-07-01",
        amount: 400_000_00,
        source: "WETA s 19-15",
        doubt: "Announced in the Budget of 2025; whether it was enacted with that day was not seen.",
      },
    ],
    yearEnds: 6,
    setting: "claimed",
    boxes: { credit: "1D" },
  },
};
