import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  {
    id: "quarterly-1",
    name: "Quarterly to March, June, September, December",
    frequency: "quarterly",
    anchor: "2026-03-31",
  },
  {
    id: "quarterly-2",
    name: "Quarterly to January, April, July, October",
    frequency: "quarterly",
    anchor: "2026-01-31",
  },
  {
    id: "quarterly-3",
    name: "Quarterly to February, May, August, November",
    frequency: "quarterly",
    anchor: "2026-02-28",
  },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "six-monthly", name: "Half-yearly, by approval", frequency: "six-monthly", anchor: "2026-06-30" },
];

export const due: DueRule[] = [{ months: 1, day: "end", shift: "none", source: "Regs; from memory" }];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "document_cent",
    name: "Total of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "common practice, no source",
  },
  {
    id: "line_cent",
    name: "Each line to the nearest cent",
    rounding: { level: "line", mode: "half-up" },
    source: "common practice, no source",
  },
];
