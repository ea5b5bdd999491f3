import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, HolidayCalendar, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual, to June", frequency: "annual", anchor: "2026-06-30" },
];

const SOURCE = "TAA; ATO lodgment dates, from memory";

const PROGRAMME = "ATO lodgment programme";
const EACH_YEAR = "the programme for registered agents is set anew each year";

/** With the income tax return where one is due, by its day. */
const WITH_INCOME_TAX = [
  ["31-october", 4, "end"],
  ["15-january", 7, 15],
  ["31-march", 9, "end"],
  ["15-may", 11, 15],
] as const;

export const due: DueRule[] = [
  {
    frequencies: ["monthly"],
    endMonths: [12],
    option: ["lodgment", "agent"],
    months: 2,
    day: 21,
    shift: "next",
    source: `${PROGRAMME}; turnover up to $10 million`,
    doubt: EACH_YEAR,
  },
  { frequencies: ["monthly"], months: 1, day: 21, shift: "next", source: SOURCE },
  ...WITH_INCOME_TAX.map(([value, months, day]): DueRule => ({
    frequencies: ["annual"],
    option: ["incomeTaxDay", value],
    months,
    day,
    shift: "next",
    source: "GSTA s 31-8; the day of the income tax return",
  })),
  {
    frequencies: ["annual"],
    months: 8,
    day: "end",
    shift: "next",
    source: "GSTA s 31-8: no income tax return is due",
  },
  { endMonths: [12], months: 2, day: 28, shift: "next", source: SOURCE },
  ...(
    [
      ["online", 3, 2, 12],
      ["online", 6, 2, 11],
      ["online", 9, 2, 11],
      ["agent", 3, 2, 26],
      ["agent", 6, 2, 25],
      ["agent", 9, 2, 25],
    ] as const
  ).map(([value, endMonth, months, day]): DueRule => ({
    endMonths: [endMonth],
    option: ["lodgment", value],
    months,
    day,
    shift: "next",
    source: PROGRAMME,
    doubt: EACH_YEAR,
  })),
  { months: 1, day: 28, shift: "next", source: SOURCE },
];

/** A day that is a holiday in any State or Territory is no business day. */
export const holidays: HolidayCalendar = {
  country: "AU",
  regions: ["NSW", "VIC", "QLD", "SA", "WA", "TAS", "ACT", "NT"],
};

export const roundings: JurisdictionPack["roundings"] = [
  {
    id: "total_invoice",
    name: "Total invoice rule: each levy of a document once",
    rounding: { level: "document", mode: "half-up" },
    source: "GSTA s 9-90",
  },
  {
    id: "taxable_supply",
    name: "Taxable supply rule: each line",
    rounding: { level: "line", mode: "half-up" },
    source: "GSTA s 9-90",
  },
];

/** For a turnover below $20 million: net debit errors strictly below $12,500. */
