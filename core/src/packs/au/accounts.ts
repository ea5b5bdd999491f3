import { chart } from "../shared/chart.ts";

const ATO = "ATO";

export const accounts = chart(
  { outOfScope: "PO", exempt: "PF", export: "SX", capital: "C10", blocked: "PB" },
  [
    { levy: "GST", name: "GST", at: 2200, authority: ATO, input: true, held: true, only: "running" },
    { levy: "WET", name: "wine equalisation tax", at: 2210, authority: ATO, input: true, only: "running" },
    { levy: "LCT", name: "luxury car tax", at: 2220, authority: ATO, input: true, only: "running" },
    {
      levy: "GST/WET/LCT",
      name: "Activity statement",
      at: 2290,
      authority: ATO,
      input: false,
      scheme: true,
      only: "shared",
    },
  ],
);
