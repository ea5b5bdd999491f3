import type { DueRule } from "../../calendar/dueDate.ts";
import type { CorrectionRule, FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual", frequency: "annual", anchor: "2026-12-31" },
];

export const due: DueRule[] = [
  { frequencies: ["annual"], months: 7, day: "end", shift: "next", source: "AO § 149" },
  {
    option: ["extension", "yes"],
    months: 2,
    day: 10,
    shift: "next",
    source: "UStDV § 46 to 48, AO § 108(3)",
  },
  { months: 1, day: 10, shift: "next", source: "UStG § 18(1), AO § 108(3)" },
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

export const correction: CorrectionRule = {
  amount: 0,
  share: null,
  turnoverBox: null,
  ceiling: null,
  yearsBack: 4,
  source: "AO § 153: the return of the period is replaced as a whole",
};
