import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, HolidayCalendar, JurisdictionPack } from "../../model/pack.ts";

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
];

export const due: DueRule[] = [{ months: 1, day: 28, shift: "next", source: "ER art. 64" }];

/** Religious holidays are announced each year; the calendar's are the expected ones. */
export const holidays: HolidayCalendar = {
  country: "AE",
  weekendUntil: { day: "2021-12-31", weekdays: [5, 6] },
};

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "line_fils",
    name: "Each line to the nearest fils",
    rounding: { level: "line", mode: "half-up" },
    source: "ER, fractions of the fils",
  },
  {
    id: "document_fils",
    name: "Total of a document to the nearest fils",
    rounding: { level: "document", mode: "half-up" },
    source: "ER, fractions of the fils",
  },
];
