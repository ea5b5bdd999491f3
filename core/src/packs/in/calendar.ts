import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";
import { DUE_ON_24TH } from "./states.ts";

export const rhythms: FilingRhythm[] = [
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "quarterly", name: "Quarterly, with monthly payment", frequency: "quarterly", anchor: "2026-03-31" },
];

/** Of GSTR-3B or CMP-08; GSTR-1 before it is due on the 11th, quarterly on the 13th. Weekends do not move it. */
export const due: DueRule[] = [
  ...["trader", "manufacturer", "restaurant", "services"].map((value): DueRule => ({
    option: ["composition", value],
    months: 1,
    day: 18,
    shift: "none",
    source: "CGST Rules R.62",
  })),
  {
    frequencies: ["quarterly"],
    regions: DUE_ON_24TH,
    months: 1,
    day: 24,
    shift: "none",
    source: "N 82/2020-CT",
  },
  { frequencies: ["quarterly"], months: 1, day: 22, shift: "none", source: "N 82/2020-CT" },
  { months: 1, day: 20, shift: "none", source: "CGST Rules R.61" },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "line_paisa",
    name: "Each line to the nearest paisa",
    rounding: { level: "line", mode: "half-up" },
    source: "e-invoice schema: tax by item",
  },
  {
    id: "document_paisa",
    name: "Total of a document to the nearest paisa",
    rounding: { level: "document", mode: "half-up" },
    source: "common practice, no source",
  },
];
