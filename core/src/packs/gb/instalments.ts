import type { DueRule } from "../../calendar/dueDate.ts";
import type { InstalmentRule } from "../../model/instalments.ts";

/** Cleared by the last day of the month. */
const MONTH_END: DueRule[] = [
  { months: 0, day: "end", shift: "before", source: "VAT Notice 732; cleared by the last working day" },
];
const NET = { "": "[3] - [4]" };

/** Interim payments of annual accounting, and payments on account of large businesses. */
export const instalments: InstalmentRule[] = [
  {
    id: "annual-monthly",
    name: "Interim payments, nine of 10 %",
    options: [["annualPayments", "monthly"]],
    frequency: "annual",
    parts: [4, 5, 6, 7, 8, 9, 10, 11, 12].map((months) => ({ months, share: "10" })),
    due: MONTH_END,
    before: NET,
    way: "fixed",
    says: "A tenth of what the year before came to, at the ends of months four to twelve; the rest with the return.",
    source: "SI 1995/2518 part VII; VAT Notice 732",
  },
  {
    id: "annual-quarterly",
    name: "Interim payments, three of 25 %",
    options: [["annualPayments", "quarterly"]],
    frequency: "annual",
    parts: [4, 7, 10].map((months) => ({ months, share: "25" })),
    due: MONTH_END,
    before: NET,
    way: "fixed",
    says: "A quarter of what the year before came to, at the ends of months four, seven and ten; the rest with the return.",
    source: "SI 1995/2518 part VII; VAT Notice 732",
  },
  {
    id: "on-account",
    name: "Payments on account",
    options: [["payments", "on-account"]],
    frequency: "quarterly",
    parts: [2, 3].map((months) => ({ months, share: "100/24" })),
    due: MONTH_END,
    way: "fixed",
    says: "One twenty-fourth of a year's liability at the ends of the second and the third month; the rest with the return. The estimate is that of the year.",
    source: "VAT Notice 700/60",
  },
];
