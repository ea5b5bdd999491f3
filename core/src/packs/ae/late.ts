import type { LateCharge } from "../../model/lateCharge.ts";

const OLD = "Cabinet Decision No. 49 of 2021; from memory";

/** What late filing and payment cost. */
export const late: LateCharge[] = [
  {
    id: "filing",
    name: "Late return",
    kind: "penalty",
    on: "filing",
    from: "2018-01-01",
    to: null,
    way: { way: "fee", each: "once", amount: 1_000_00, nil: 1_000_00, most: 1_000_00 },
    says: "1,000, or 2,000 where another was late within 24 months",
    source: OLD,
    doubt: "a second one within 24 months is not told apart",
  },
  {
    id: "payment",
    name: "Late payment, at once",
    kind: "penalty",
    on: "payment",
    from: "2021-06-28",
    to: "2026-04-13",
    way: { way: "share", percent: "2", after: 0 },
    says: "2 % of what is unpaid on the day after it was due",
    source: OLD,
  },
  {
    id: "payment-months",
    name: "Late payment, by month",
    kind: "penalty",
    on: "payment",
    from: "2021-06-28",
    to: "2026-04-13",
    way: { way: "monthly", percent: "4", after: 0, begun: false, most: 75 },
    says: "4 % of what is unpaid a month after it was due, and each month later; 300 % at most",
    source: OLD,
  },
  {
    id: "payment-yearly",
    name: "Late payment, by year",
    kind: "penalty",
    on: "payment",
    from: "2026-04-14",
    to: null,
    way: { way: "yearly", schedule: "ae.LATE", after: 0 },
    says: "14 % a year of what is unpaid",
    source: "Cabinet Decision No. 129 of 2025; from memory",
    doubt: "counted by the month there, by the day here",
  },
];
