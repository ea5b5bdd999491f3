import { namesOf, schedulesOf } from "../shared/codeRows.ts";

export const schedules = schedulesOf("sg", {
  STD: [
    { from: "2007-07-01", to: "2022-12-31", rate: "7", source: "GSTA s 16" },
    { from: "2023-01-01", to: "2023-12-31", rate: "8", source: "Budget 2022" },
    { from: "2024-01-01", to: null, rate: "9", source: "Budget 2022" },
  ],
  ZERO: [{ from: "1994-04-01", to: null, rate: "0", source: "GSTA s 21" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("sg", {
  STD: "Standard rate",
  ZERO: "Zero rate",
});
