import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" },
  {
    id: "quarterly-ny",
    name: "Quarterly to February, May, August, November (New York)",
    frequency: "quarterly",
    anchor: "2026-02-28",
  },
  { id: "half-yearly", name: "Half-yearly", frequency: "six-monthly", anchor: "2026-06-30" },
  { id: "annual", name: "Annual", frequency: "annual", anchor: "2026-12-31" },
];

export const due: DueRule[] = [
  {
    levies: ["SALES:CA"],
    months: 1,
    day: "end",
    shift: "next",
    source: "Cal. Rev. & Tax. Code § 6452: the last day of the month after",
  },
  {
    levies: ["SALES:PA"],
    frequencies: ["six-monthly"],
    months: 2,
    day: 20,
    shift: "next",
    source: "Tax Reform Code § 217: 20 August, 20 February",
    doubt: "the days of half-yearly filers are from memory",
  },
  {
    months: 1,
    day: 20,
    shift: "next",
    source: "the states' acts: the 20th",
    doubt: "one day for all these states; holidays and Tennessee were not looked up",
  },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "component",
    name: "Each tax of each line to the nearest cent",
    rounding: { level: "line", mode: "half-up" },
    source: "SSUTA § 324",
  },
  {
    id: "combined",
    name: "All taxes of a line together",
    rounding: { level: "line", mode: "half-up", combined: true },
    source: "SSUTA § 324",
  },
  {
    id: "document",
    name: "Each tax of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "SSUTA § 324",
  },
];
