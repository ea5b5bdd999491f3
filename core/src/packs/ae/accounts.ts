import { chart } from "../shared/chart.ts";

export const accounts = chart(
  { outOfScope: "PO", exempt: "PX", export: "ZX", capital: "P5K", blocked: "P5N" },
  [{ levy: "VAT", name: "VAT", at: 2200, authority: "FTA", input: true, scheme: true }],
);
