import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  {
    id: "two-monthly",
    name: "Two-monthly: January and February, and so on",
    frequency: "two-monthly",
    anchor: "2026-02-28",
  },
  { id: "four-monthly", name: "Four-monthly", frequency: "four-monthly", anchor: "2026-04-30" },
  { id: "six-monthly", name: "Six-monthly", frequency: "six-monthly", anchor: "2026-06-30" },
  { id: "annual", name: "Annual", frequency: "annual", anchor: "2026-12-31" },
  {
    id: "monthly",
    name: "Monthly, for those in permanent repayment",
    frequency: "monthly",
    anchor: "2026-01-31",
  },
];

/** The 23rd holds where the return is both filed and paid online. */
export const due: DueRule[] = [
  { option: ["filing", "paper"], months: 1, day: 19, shift: "none", source: "VATCA 2010 s.76" },
  { months: 1, day: 23, shift: "none", source: "VATCA 2010 s.76; the 19th extended to the 23rd online" },
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
    name: "Each rate of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "common practice, no source",
  },
];
