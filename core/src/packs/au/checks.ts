import type { PackCheck } from "../../model/pack.ts";

/** What is checked before filing here and not everywhere. */
export const checks: PackCheck[] = [
  {
    id: "average-price",
    says: "The average wholesale price of wine is that of the period's own sales (WETA s 9-25).",
    kind: "average-price",
    codes: ["WA"],
    attribute: "averagePrice",
    wholesale: ["WW", "WWN"],
    least: 10,
  },
];
