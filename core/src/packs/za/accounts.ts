import { chart } from "../shared/chart.ts";

export const accounts = chart(
  { outOfScope: "PN", exempt: "PX", export: "ZX", capital: "P15K", blocked: "P15N" },
  [{ levy: "VAT", name: "VAT", at: 2200, authority: "SARS", input: true, scheme: true }],
);
