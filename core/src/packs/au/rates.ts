import { namesOf, schedulesOf } from "../shared/codeRows.ts";

const LIMITS = "ATO, indexed every 1 July; from memory";

/** Rates, and the dated dollar figures: luxury car thresholds (other, fuel-efficient) and the car limit. */
export const schedules = schedulesOf("au", {
  GST: [{ from: "2000-07-01", to: null, rate: "10", source: "GSTA s 9-70" }],
  ZERO: [{ from: "2000-07-01", to: null, rate: "0", source: "GSTA Div 38" }],
  WET: [{ from: "2000-07-01", to: null, rate: "29", source: "WETA Div 5" }],
  LCTRATE: [
    { from: "2000-07-01", to: "2008-06-30", rate: "25", source: "LCTA s 5-15" },
    { from: "2008-07-01", to: null, rate: "33", source: "LCTA s 5-15" },
  ],
  LCT: [
    { from: "2017-07-01", to: "2018-06-30", rate: "65094", source: LIMITS },
    { from: "2018-07-01", to: "2019-06-30", rate: "66331", source: LIMITS },
    { from: "2019-07-01", to: "2020-06-30", rate: "67525", source: LIMITS },
    { from: "2020-07-01", to: "2021-06-30", rate: "68740", source: LIMITS },
    { from: "2021-07-01", to: "2022-06-30", rate: "69152", source: LIMITS },
    { from: "2022-07-01", to: "2023-06-30", rate: "71849", source: LIMITS },
    { from: "2023-07-01", to: "2024-06-30", rate: "76950", source: LIMITS },
    { from: "2024-07-01", to: "2025-06-30", rate: "80567", source: LIMITS },
    { from: "2025-07-01", to: "2026-06-30", rate: "80567", source: LIMITS },
    {
      from: "2026-07-01",
      to: null,
      rate: "80567",
      source: LIMITS,
      doubt: "the figure of the year before; the one of this year is not known here",
    },
  ],
  LCTF: [
    { from: "2017-07-01", to: "2020-06-30", rate: "75526", source: LIMITS },
    { from: "2020-07-01", to: "2021-06-30", rate: "77565", source: LIMITS },
    { from: "2021-07-01", to: "2022-06-30", rate: "79659", source: LIMITS },
    { from: "2022-07-01", to: "2023-06-30", rate: "84916", source: LIMITS },
    { from: "2023-07-01", to: "2024-06-30", rate: "89332", source: LIMITS },
    { from: "2024-07-01", to: "2026-06-30", rate: "91387", source: LIMITS },
    {
      from: "2026-07-01",
      to: null,
      rate: "91387",
      source: LIMITS,
      doubt: "the figure of the year before; the one of this year is not known here",
    },
  ],
  CAR: [
    { from: "2017-07-01", to: "2020-06-30", rate: "57581", source: LIMITS },
    { from: "2020-07-01", to: "2021-06-30", rate: "59136", source: LIMITS },
    { from: "2021-07-01", to: "2022-06-30", rate: "60733", source: LIMITS },
    { from: "2022-07-01", to: "2023-06-30", rate: "64741", source: LIMITS },
    { from: "2023-07-01", to: "2024-06-30", rate: "68108", source: LIMITS },
    { from: "2024-07-01", to: "2026-06-30", rate: "69674", source: LIMITS },
    {
      from: "2026-07-01",
      to: null,
      rate: "69674",
      source: LIMITS,
      doubt: "the figure of the year before; the one of this year is not known here",
    },
  ],
});

/** What the schedules are called. */
export const rateNames = namesOf("au", {
  GST: "GST",
  ZERO: "Zero rate",
  WET: "Wine equalisation tax",
  LCTRATE: "Luxury car tax, rate",
  LCT: "Luxury car tax, threshold",
  LCTF: "Luxury car tax, fuel-efficient threshold",
  CAR: "Car limit",
});
