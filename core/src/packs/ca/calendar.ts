import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, HolidayCalendar, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "quarterly", name: "Quarterly, calendar quarters", frequency: "quarterly", anchor: "2026-03-31" },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual, to December", frequency: "annual", anchor: "2026-12-31" },
];

export const due: DueRule[] = [
  {
    levies: ["SKPST"],
    option: ["skFiling", "online"],
    months: 1,
    day: "end",
    shift: "next",
    source: "Saskatchewan Finance",
    doubt: "the day of electronic filers was not seen",
  },
  {
    levies: ["SKPST"],
    months: 1,
    day: 20,
    shift: "next",
    source: "Saskatchewan Finance",
    doubt: "the day of electronic filers was not seen",
  },
  { levies: ["MBRST"], months: 1, day: 20, shift: "next", source: "Manitoba Finance; from memory" },
  { levies: ["BCPST"], months: 1, day: "end", shift: "next", source: "BC Bulletin PST 001; from memory" },
  {
    frequencies: ["annual"],
    endMonths: [12],
    option: ["person", "individual"],
    months: 6,
    day: 15,
    pay: { months: 4, day: "end" },
    shift: "next",
    source: "ETA 238(1)(a)(ii) and 228(2): individuals with business income and a December year end",
  },
  { frequencies: ["annual"], months: 3, day: "end", shift: "next", source: "ETA 238(1)" },
  { months: 1, day: "end", shift: "next", source: "ETA 238(2)" },
];

/** Days the CRA recognises, as of the fact sheet; a few are no general holidays in the calendar library. */
export const holidays: HolidayCalendar = {
  country: "CA",
  extra: ["easter 1", "1st monday in August", "09-30 since 2021", "11-11", "12-26"],
};

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "document_cent",
    name: "Each levy and rate of a document to the nearest cent",
    rounding: { level: "document", mode: "half-up" },
    source: "ETA 165.2",
  },
  {
    id: "line_cent",
    name: "Each line to the nearest cent",
    rounding: { level: "line", mode: "half-up" },
    source: "ETA 165.2",
  },
];

/** No tolerance: an error is corrected in the period it belongs to. */
