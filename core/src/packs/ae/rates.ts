import { namesOf, schedulesOf } from "../shared/codeRows.ts";

/** No VAT before 2018: a tax point in 2017 has no rate. */
export const schedules = schedulesOf("ae", {
  LATE: [
    { from: "2026-04-14", to: null, rate: "14", source: "Cabinet Decision No. 129 of 2025; from memory" },
  ],
  STD: [{ from: "2018-01-01", to: null, rate: "5", source: "Law art. 3" }],
  ZERO: [{ from: "2018-01-01", to: null, rate: "0", source: "Law art. 45" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("ae", {
  LATE: "Late payment penalty, a year",
  STD: "Standard rate",
  ZERO: "Zero rate",
});
