import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

/** Quarters follow the accounting year. */
export const rhythms: FilingRhythm[] = [
  {
    id: "quarterly-calendar",
    name: "Quarterly, to March, June, September, December",
    frequency: "quarterly",
    anchor: "2026-03-31",
  },
  {
    id: "quarterly-january",
    name: "Quarterly, to January, April, July, October",
    frequency: "quarterly",
    anchor: "2026-01-31",
  },
  {
    id: "quarterly-february",
    name: "Quarterly, to February, May, August, November",
    frequency: "quarterly",
    anchor: "2026-02-28",
  },
];

export const due: DueRule[] = [
  { months: 1, day: 25, shift: "next", source: "NIRC s. 114(A): the 25th day after the quarter" },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "line_centavo",
    name: "Each line to the nearest centavo",
    rounding: { level: "line", mode: "half-up" },
    source: "common practice, no source",
  },
  {
    id: "document_centavo",
    name: "Total of a document to the nearest centavo",
    rounding: { level: "document", mode: "half-up" },
    source: "common practice, no source",
  },
];
