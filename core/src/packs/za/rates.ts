import { namesOf, schedulesOf } from "../shared/codeRows.ts";

/** The rises to 15.5 and 16 % announced for 2025 and 2026 were withdrawn before they took effect. */
export const schedules = schedulesOf("za", {
  STD: [
    { from: "1993-04-07", to: "2018-03-31", rate: "14", source: "Act s. 7(1)" },
    { from: "2018-04-01", to: null, rate: "15", source: "Act s. 7(1), Rates and Monetary Amounts law 2018" },
  ],
  OLD: [{ from: "1993-04-07", to: null, rate: "14", source: "Act s. 67A: supplies before April 2018" }],
  ZERO: [{ from: "1991-09-30", to: null, rate: "0", source: "Act s. 11" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("za", {
  STD: "Standard rate",
  OLD: "Rate before April 2018",
  ZERO: "Zero rate",
});
