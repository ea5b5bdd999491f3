import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  {
    id: "stagger-1",
    name: "Quarterly to March, June, September, December",
    frequency: "quarterly",
    anchor: "2026-03-31",
  },
  {
    id: "stagger-2",
    name: "Quarterly to January, April, July, October",
    frequency: "quarterly",
    anchor: "2026-04-30",
  },
  {
    id: "stagger-3",
    name: "Quarterly to February, May, August, November",
    frequency: "quarterly",
    anchor: "2026-05-31",
  },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual, to December", frequency: "annual", anchor: "2026-12-31" },
];

/** For month-end periods: the 7th of the second month after. The authority's own due date wins when known. */
export const due: DueRule[] = [
  {
    frequencies: ["annual"],
    months: 2,
    day: "end",
    shift: "none",
    payShift: "before",
    source: "VAT Notice 732: no further days for annual accounting",
  },
  {
    option: ["payments", "on-account"],
    months: 1,
    day: "end",
    shift: "none",
    payShift: "before",
    source: "VAT Notice 700/60: no further days for payments on account",
  },
  {
    months: 1,
    day: "end",
    days: 7,
    shift: "none",
    payShift: "before",
    source: "SI 1995/2518 reg. 25 and the online extension",
  },
];

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "line_penny",
    name: "Each line to the nearest penny",
    rounding: { level: "line", mode: "half-up" },
    source: "VAT Notice 700 section 17.5.1",
  },
  {
    id: "total_down",
    name: "Invoice total down to the whole penny",
    rounding: { level: "document", mode: "down" },
    source: "VAT Notice 700 section 17.5",
  },
  {
    id: "line_tenth_penny_then_down",
    name: "Each line to a tenth of a penny, the total down",
    rounding: { level: "document", mode: "down", lineStep: "0.1" },
    source: "VAT Notice 700 section 17.5.1",
  },
  {
    id: "retail_total_nearest",
    name: "Retail: each transaction to the nearest penny",
    rounding: { level: "document", mode: "half-up" },
    source: "VAT Notice 700 section 17.6",
  },
];

/** Required on screen before a return is sent. HMRC Developer Hub, VAT (MTD) API, end-to-end guide. */
export const declaration =
  "When you submit this VAT information you are making a legal declaration that the information is true and " +
  "complete. A false declaration can result in prosecution.";
