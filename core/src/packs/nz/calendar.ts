import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  {
    id: "two-monthly-a",
    name: "Two-monthly to January, March, May … (category A)",
    frequency: "two-monthly",
    anchor: "2026-01-31",
  },
  {
    id: "two-monthly-b",
    name: "Two-monthly to February, April, June … (category B)",
    frequency: "two-monthly",
    anchor: "2026-02-28",
  },
  {
    id: "six-monthly",
    name: "Six-monthly to March and September",
    frequency: "six-monthly",
    anchor: "2026-03-31",
  },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
];

const SOURCE = "IR375; from memory";

export const due: DueRule[] = [
  { endMonths: [3], months: 2, day: 7, shift: "next", source: SOURCE },
  { endMonths: [11], months: 2, day: 15, shift: "next", source: SOURCE },
  { months: 1, day: 28, shift: "next", source: SOURCE },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "document_cent",
    name: "Total of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "from memory",
  },
  {
    id: "line_cent",
    name: "Each line to the nearest cent",
    rounding: { level: "line", mode: "half-up" },
    source: "from memory",
  },
];
