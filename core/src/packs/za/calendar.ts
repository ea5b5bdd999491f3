import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  {
    id: "category-a",
    name: "Category A: two months to January, March …",
    frequency: "two-monthly",
    anchor: "2026-01-31",
  },
  {
    id: "category-b",
    name: "Category B: two months to February, April …",
    frequency: "two-monthly",
    anchor: "2026-02-28",
  },
  { id: "category-c", name: "Category C: monthly", frequency: "monthly", anchor: "2026-01-31" },
  {
    id: "category-d",
    name: "Category D: six months to February and August",
    frequency: "six-monthly",
    anchor: "2026-02-28",
  },
  { id: "category-e", name: "Category E: the year of assessment", frequency: "annual", anchor: "2026-02-28" },
];

/** Filed and paid through eFiling: the last business day of the month. On paper the 25th. */
export const due: DueRule[] = [
  { option: ["filing", "paper"], months: 1, day: 25, shift: "before", source: "Act s. 28(1)" },
  { months: 1, day: "end", shift: "before", source: "Act s. 28; eFiling" },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "line_cent",
    name: "Each line to the nearest cent",
    rounding: { level: "line", mode: "half-up" },
    source: "common practice, no source",
  },
  {
    id: "document_cent",
    name: "Total of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "common practice, no source",
  },
];
