import { chart } from "../shared/chart.ts";

const CRA = "Receiver General";

export const accounts = chart(
  { outOfScope: "O", exempt: "E", export: "ZX", capital: "G5-C", meals: "G5-M" },
  [
    { levy: "GST/HST", name: "GST/HST", at: 2200, authority: CRA, input: true, scheme: true },
    { levy: "QST", name: "QST", at: 2210, authority: "Revenu Québec", input: true, scheme: true },
    { levy: "BCPST", name: "BC PST", at: 2220, authority: "British Columbia", input: false, allowance: true },
    { levy: "SKPST", name: "SK PST", at: 2230, authority: "Saskatchewan", input: false },
    { levy: "MBRST", name: "MB RST", at: 2240, authority: "Manitoba", input: false, allowance: true },
  ],
);
