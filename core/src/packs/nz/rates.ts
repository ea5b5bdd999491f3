import { namesOf, schedulesOf } from "../shared/codeRows.ts";

export const schedules = schedulesOf("nz", {
  STD: [
    { from: "1986-10-01", to: "1989-06-30", rate: "10", source: "from memory" },
    { from: "1989-07-01", to: "2010-09-30", rate: "12.5", source: "from memory" },
    { from: "2010-10-01", to: null, rate: "15", source: "GSTA s 8" },
  ],
  ZERO: [{ from: "1986-10-01", to: null, rate: "0", source: "GSTA s 11, 11A, 11AB, 11B" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("nz", {
  STD: "Standard rate",
  ZERO: "Zero rate",
});
