import { lateRates } from "./late.ts";
import { flatRateNames, flatRates } from "./flatRate.ts";
import { namesOf, schedulesOf } from "../shared/codeRows.ts";

/** VAT rates by date. HOSP is hospitality and holiday accommodation with its temporary reduced rates. */
export const schedules = schedulesOf("gb", {
  ...lateRates,
  STD: [
    { from: "1991-04-01", to: "2008-11-30", rate: "17.5", source: "FA 1991, from memory" },
    { from: "2008-12-01", to: "2009-12-31", rate: "15", source: "SI 2008/3020, from memory" },
    { from: "2010-01-01", to: "2011-01-03", rate: "17.5", source: "expiry of SI 2008/3020, from memory" },
    { from: "2011-01-04", to: null, rate: "20", source: "VATA 1994 s.2(1)" },
  ],
  ...flatRates,
  RED: [{ from: "1997-09-01", to: null, rate: "5", source: "VATA 1994 s.29A, Sch 7A" }],
  ZERO: [{ from: "1973-04-01", to: null, rate: "0", source: "VATA 1994 s.30, Sch 8" }],
  HOSP: [
    { from: "2011-01-04", to: "2020-07-14", rate: "20", source: "VATA 1994 s.2(1)" },
    { from: "2020-07-15", to: "2021-09-30", rate: "5", source: "SI 2020/728, FA 2021 s.92" },
    { from: "2021-10-01", to: "2022-03-31", rate: "12.5", source: "FA 2021 s.93" },
    { from: "2022-04-01", to: null, rate: "20", source: "expiry of FA 2021 s.93" },
  ],
});

/** What the schedules are called. */
export const rateNames = namesOf("gb", {
  LATE: "Late payment interest",
  "LATE-2": "Second late payment penalty, a year",
  STD: "Standard rate",
  RED: "Reduced rate",
  ZERO: "Zero rate",
  HOSP: "Hospitality and accommodation",
  ...flatRateNames,
});
