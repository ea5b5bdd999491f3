import type { DueRule } from "../../calendar/dueDate.ts";
import type { CorrectionRule, FilingRhythm, HolidayCalendar, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual, to June", frequency: "annual", anchor: "2026-06-30" },
];

const SOURCE = "TAA; ATO lodgment dates, from memory";

export const due: DueRule[] = [
  { frequencies: ["monthly"], months: 1, day: 21, shift: "next", source: SOURCE },
  { frequencies: ["annual"], months: 8, day: "end", shift: "next", source: SOURCE },
  { endMonths: [12], months: 2, day: 28, shift: "next", source: SOURCE },
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
export const correction: CorrectionRule = {
  amount: 12_500_00 - 1,
  share: null,
  turnoverBox: null,
  ceiling: null,
  yearsBack: 4,
  source: "Correcting GST Errors Determination 2023; from memory",
};
