import type { DueRule } from "../../calendar/dueDate.ts";
import type { InstalmentRule } from "../../model/instalments.ts";

const BY_25TH: DueRule[] = [{ months: 1, day: 25, shift: "none", source: "CGST Rules R.61(3)" }];
const HEADS = { IGST: "igst", CGST: "cgst", SGST: "sgst", CESS: "cess" };

const deposits = {
  frequency: "quarterly",
  levies: ["CGST"],
  parts: [1, 2].map((months) => ({ months, share: "35" })),
  due: BY_25TH,
  before: Object.fromEntries(
    Object.entries(HEADS).map(([head, box]) => [head, `[6.1A.${box}.cash] + [6.1B.${box}.cash]`]),
  ),
} as const;
const REGULAR = ["composition", "no"] as const;

/** Deposits of quarterly filers for the first two months, PMT-06. */
export const instalments: InstalmentRule[] = [
  {
    id: "fixed-sum",
    name: "Deposits by PMT-06, fixed sum",
    options: [["deposits", "fixed"], REGULAR],
    ...deposits,
    way: "fixed",
    shorter: "100",
    says: "35 % of what was paid in cash with the return of the quarter before, by head; all of that of the last month where it was filed monthly.",
    source: "CGST Rules R.61(3); Circ. 143/13/2020",
  },
  {
    id: "self-assessed",
    name: "Deposits by PMT-06, self-assessed",
    options: [["deposits", "self"], REGULAR],
    ...deposits,
    way: "actual",
    says: "What the month comes to less its credit, by head, as the documents have it.",
    source: "CGST Rules R.61(3)",
  },
];
