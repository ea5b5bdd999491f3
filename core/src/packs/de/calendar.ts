import type { DueRule } from "../../calendar/dueDate.ts";
import type { FilingRhythm, JurisdictionPack } from "../../model/pack.ts";

export const rhythms: FilingRhythm[] = [
  { id: "quarterly", name: "Quarterly", frequency: "quarterly", anchor: "2026-03-31" },
  { id: "monthly", name: "Monthly", frequency: "monthly", anchor: "2026-01-31" },
  { id: "annual", name: "Annual", frequency: "annual", anchor: "2026-12-31" },
];

export const due: DueRule[] = [
  {
    frequencies: ["annual"],
    option: ["adviser", "yes"],
    months: 14,
    day: "end",
    fixed: {
      "2020-12-31": "2022-08-31",
      "2021-12-31": "2023-08-31",
      "2022-12-31": "2024-07-31",
      "2023-12-31": "2025-06-02",
      "2024-12-31": "2026-04-30",
    },
    shift: "next",
    source: "AO § 149(3); longer terms for 2020 to 2024",
  },
  {
    frequencies: ["annual"],
    months: 7,
    day: "end",
    fixed: {
      "2020-12-31": "2021-11-01",
      "2021-12-31": "2022-10-31",
      "2022-12-31": "2023-10-02",
      "2023-12-31": "2024-09-02",
    },
    shift: "next",
    source: "AO § 149(2); longer terms for 2020 to 2023",
  },
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
