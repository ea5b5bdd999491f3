import type { LateCharge } from "../../model/lateCharge.ts";
import type { RateRow } from "../../model/taxCode.ts";

const SOURCE = "Finance Act 2021 Sch. 26; Finance Act 2025; from memory";
const INTEREST = "Finance Act 2009 s.101; base rate and 2.5 %, 4 % from 6 April 2025; from memory";

/** Yearly rates of interest on tax paid late. */
export const lateRates: Record<string, RateRow[]> = {
  LATE: (
    [
      ["2023-01-01", "2023-01-05", "5.5"],
      ["2023-01-06", "2023-02-20", "6"],
      ["2023-02-21", "2023-04-12", "6.5"],
      ["2023-04-13", "2023-05-30", "6.75"],
      ["2023-05-31", "2023-07-10", "7"],
      ["2023-07-11", "2023-08-21", "7.5"],
      ["2023-08-22", "2024-08-19", "7.75"],
      ["2024-08-20", "2024-11-25", "7.5"],
      ["2024-11-26", "2025-02-24", "7.25"],
      ["2025-02-25", "2025-04-05", "7"],
      ["2025-04-06", "2025-05-27", "8.5"],
      ["2025-05-28", "2025-08-26", "8.25"],
      ["2025-08-27", "2026-01-08", "8"],
      ["2026-01-09", null, "7.75"],
    ] as const
  ).map(([from, to, rate]): RateRow => ({
    from,
    to,
    rate,
    source: INTEREST,
    ...(to === null ? { doubt: "it moves with the base rate; later changes were not seen" } : {}),
  })),
  "LATE-2": [
    { from: "2023-01-01", to: "2025-03-31", rate: "4", source: SOURCE },
    { from: "2025-04-01", to: null, rate: "10", source: SOURCE },
  ],
};

const penalty = (
  id: string,
  after: number,
  percent: string,
  from: string,
  to: string | null,
): LateCharge => ({
  id,
  name: `Late payment penalty, day ${after}`,
  kind: "penalty",
  on: "payment",
  from,
  to,
  way: { way: "share", percent, after },
  says: `${percent} % of what is unpaid at the end of day ${after}; nothing where it is paid, or time to pay is agreed, by then`,
  source: SOURCE,
});

/** What late payment costs. Late returns collect points; the fourth of a quarterly filer costs 200. */
export const late: LateCharge[] = [
  {
    id: "interest",
    name: "Late payment interest",
    kind: "interest",
    on: "payment",
    from: "2023-01-01",
    to: null,
    way: { way: "yearly", schedule: "gb.LATE", after: 0 },
    says: "simple interest from the first day after it was due",
    source: INTEREST,
  },
  penalty("day-15-2023", 15, "2", "2023-02-01", "2025-04-30"),
  penalty("day-30-2023", 30, "2", "2023-02-01", "2025-04-30"),
  penalty("day-15", 15, "3", "2025-05-01", null),
  penalty("day-30", 30, "3", "2025-05-01", null),
  {
    id: "second",
    name: "Second late payment penalty",
    kind: "penalty",
    on: "payment",
    from: "2023-02-01",
    to: null,
    way: { way: "yearly", schedule: "gb.LATE-2", after: 30 },
    says: "a yearly rate of what stays unpaid from day 31 on, day by day",
    source: SOURCE,
  },
];
