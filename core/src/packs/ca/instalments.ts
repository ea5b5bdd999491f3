import type { DueRule } from "../../calendar/dueDate.ts";
import type { InstalmentRule } from "../../model/instalments.ts";

const MONTH_AFTER: DueRule[] = [{ months: 1, day: "end", shift: "next", source: "ETA 237(1)" }];

const quarters = {
  frequency: "annual",
  parts: [3, 6, 9, 12].map((months) => ({ months, share: "25" })),
  due: MONTH_AFTER,
  way: "lesser",
  least: 3_000_00,
  says: "A quarter of the lesser of last year's net tax and this year's, one month after each quarter; none where either is below 3,000.",
  source: "ETA 237",
} as const;

/** Quarterly instalments of annual filers. */
export const instalments: InstalmentRule[] = [
  {
    id: "quarterly-quebec",
    name: "Quarterly instalments",
    levies: ["QST"],
    before: { "GST/HST": "[109]", QST: "[Q209]" },
    ...quarters,
    source: "ETA 237; QST Act s.437.1 to 437.4",
  },
  {
    id: "quarterly",
    name: "Quarterly instalments",
    levies: ["GST"],
    before: { "GST/HST": "[109]" },
    paidIn: "110",
    ...quarters,
  },
];
