import type { DueRule } from "../../calendar/dueDate.ts";
import type { Frequency } from "../../calendar/filingPeriods.ts";
import type { FilingRhythm, FurtherDay, JurisdictionPack } from "../../model/pack.ts";
import { DUE_ON_24TH } from "./states.ts";

export const rhythms: FilingRhythm[] = [
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "quarterly", name: "Quarterly, with monthly payment", frequency: "quarterly", anchor: "2026-03-31" },
];

/** Of GSTR-3B or CMP-08. Weekends do not move it. */
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

const REGULAR = ["composition", "no"] as const;
const further = (
  name: string,
  frequency: Frequency,
  months: number,
  day: number,
  source: string,
): FurtherDay => ({
  name,
  frequencies: [frequency],
  option: REGULAR,
  months,
  day,
  shift: "none",
  source,
});

/** The statement of outward supplies, and what a quarterly filer furnishes and deposits for its first two months. */
export const furtherDays: FurtherDay[] = [
  further("GSTR-1", "monthly", 1, 11, "N 83/2020-CT"),
  further("GSTR-1", "quarterly", 1, 13, "N 83/2020-CT"),
  further("Invoices of the first month (IFF)", "quarterly", -1, 13, "CGST Rules R.59(2)"),
  further("Invoices of the second month (IFF)", "quarterly", 0, 13, "CGST Rules R.59(2)"),
  further("Deposit of the first month (PMT-06)", "quarterly", -1, 25, "CGST Rules R.61(3)"),
  further("Deposit of the second month (PMT-06)", "quarterly", 0, 25, "CGST Rules R.61(3)"),
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
