import { namesOf, schedulesOf } from "../shared/codeRows.ts";

export const schedules = schedulesOf("ph", {
  STD: [
    { from: "1988-01-01", to: "2006-01-31", rate: "10", source: "NIRC s. 106 before RA 9337" },
    { from: "2006-02-01", to: null, rate: "12", source: "NIRC s. 106, RA 9337" },
  ],
  ZERO: [{ from: "1988-01-01", to: null, rate: "0", source: "NIRC s. 106(A)(2), 108(B)" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("ph", {
  STD: "Standard rate",
  ZERO: "Zero rate",
});
