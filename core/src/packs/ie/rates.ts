import { namesOf, schedulesOf } from "../shared/codeRows.ts";

const FROM_MEMORY = "from memory";
const HOSPITALITY = [
  { from: "2011-07-01", to: "2018-12-31", rate: "9", source: "VATCA 2010 Sch 3" },
  { from: "2019-01-01", to: "2020-10-31", rate: "13.5", source: "Finance Act 2018" },
  { from: "2020-11-01", to: "2023-08-31", rate: "9", source: "Finance Act 2020, extended" },
];

/** VAT rates by date. HOSP: restaurants, catering, hairdressing. ACC: accommodation, cinemas, attractions. EN: energy. */
export const schedules = schedulesOf("ie", {
  LATE: [{ from: "2009-07-01", to: null, rate: "10.001", source: "VATCA 2010 s.114(1): 0.0274 % a day" }],
  STD: [
    { from: "2012-01-01", to: "2020-08-31", rate: "23", source: "VATCA 2010 s.46" },
    {
      from: "2020-09-01",
      to: "2021-02-28",
      rate: "21",
      source: "Financial Provisions (Covid-19) (No. 2) Act 2020",
    },
    { from: "2021-03-01", to: null, rate: "23", source: "VATCA 2010 s.46" },
  ],
  RED: [{ from: "2003-01-01", to: null, rate: "13.5", source: "VATCA 2010 s.46, Sch 3" }],
  SEC: [{ from: "2011-07-01", to: null, rate: "9", source: "VATCA 2010 Sch 3" }],
  HOSP: [
    ...HOSPITALITY,
    { from: "2023-09-01", to: "2026-06-30", rate: "13.5", source: "expiry" },
    {
      from: "2026-07-01",
      to: null,
      rate: "9",
      source: "Finance Act 2025",
      doubt: "announced in the Budget for 2026; the Act was not seen",
    },
  ],
  ACC: [...HOSPITALITY, { from: "2023-09-01", to: null, rate: "13.5", source: "expiry" }],
  EN: [
    { from: "2003-01-01", to: "2022-04-30", rate: "13.5", source: "VATCA 2010 Sch 3" },
    {
      from: "2022-05-01",
      to: "2030-12-31",
      rate: "9",
      source: "Finance Act 2022, extended",
      doubt: "how long it is extended was not seen",
    },
    { from: "2031-01-01", to: null, rate: "13.5", source: "expiry" },
  ],
  L48: [{ from: "2005-01-01", to: null, rate: "4.8", source: "VATCA 2010 s.46" }],
  FFA: [
    { from: "2017-01-01", to: "2020-12-31", rate: "5.4", source: FROM_MEMORY },
    { from: "2021-01-01", to: "2021-12-31", rate: "5.6", source: FROM_MEMORY },
    { from: "2022-01-01", to: "2022-12-31", rate: "5.5", source: FROM_MEMORY },
    { from: "2023-01-01", to: "2023-12-31", rate: "5", source: FROM_MEMORY },
    { from: "2024-01-01", to: "2024-12-31", rate: "4.8", source: FROM_MEMORY },
    { from: "2025-01-01", to: "2025-12-31", rate: "5.1", source: FROM_MEMORY },
    {
      from: "2026-01-01",
      to: null,
      rate: "4.5",
      source: "VATCA 2010 s.86",
      doubt: "announced in the Budget for 2026; the Act was not seen",
    },
  ],
  ZERO: [{ from: "1972-11-01", to: null, rate: "0", source: "VATCA 2010 Sch 2" }],
});

/** What the schedules are called. */
export const rateNames = namesOf("ie", {
  LATE: "Interest on late payment, a year of 365 days",
  STD: "Standard rate",
  RED: "Reduced rate",
  SEC: "Second reduced rate",
  HOSP: "Restaurants, catering, hairdressing",
  ACC: "Accommodation and attractions",
  EN: "Gas and electricity",
  L48: "Livestock",
  FFA: "Farmer's flat-rate addition",
  ZERO: "Zero rate",
});
