import { namesOf, schedulesOf } from "../shared/codeRows.ts";
import { quickRateNames, quickRates } from "./quickRates.ts";

const TABLE = "CRA rate table, from memory";
const CAPS =
  "ETA 201, Income Tax Regulations 7307; before tax, by the day the vehicle is acquired; from memory";
const NS_NOTICE = "CRA notice on the decrease of the HST rate in Nova Scotia, from memory";

/** Rates by levy and province. FED is the federal part alone, for point-of-sale rebates; D.xx the provincial part. */
export const schedules = schedulesOf("ca", {
  ...quickRates,
  GST: [
    { from: "1991-01-01", to: "2006-06-30", rate: "7", source: "ETA 165(1), from memory" },
    { from: "2006-07-01", to: "2007-12-31", rate: "6", source: "ETA 165(1), from memory" },
    { from: "2008-01-01", to: null, rate: "5", source: "ETA 165(1)" },
  ],
  VEHICLE: [
    { from: "2001-01-01", to: "2021-12-31", rate: "30000", source: CAPS },
    { from: "2022-01-01", to: "2022-12-31", rate: "34000", source: CAPS },
    { from: "2023-01-01", to: "2023-12-31", rate: "36000", source: CAPS },
    { from: "2024-01-01", to: "2024-12-31", rate: "37000", source: CAPS },
    { from: "2025-01-01", to: "2025-12-31", rate: "38000", source: CAPS },
    {
      from: "2026-01-01",
      to: null,
      rate: "39000",
      source: CAPS,
      doubt: "announced in December 2025, not seen",
    },
  ],
  ZEV: [
    { from: "2001-01-01", to: "2019-03-18", rate: "30000", source: CAPS },
    { from: "2019-03-19", to: "2021-12-31", rate: "55000", source: CAPS },
    { from: "2022-01-01", to: "2022-12-31", rate: "59000", source: CAPS },
    { from: "2023-01-01", to: null, rate: "61000", source: CAPS },
  ],
  ZERO: [{ from: "1991-01-01", to: null, rate: "0", source: "ETA Sch. VI" }],
  ON: [{ from: "2010-07-01", to: null, rate: "13", source: TABLE }],
  NB: [
    { from: "2008-01-01", to: "2016-06-30", rate: "13", source: TABLE },
    { from: "2016-07-01", to: null, rate: "15", source: TABLE },
  ],
  NL: [
    { from: "2008-01-01", to: "2016-06-30", rate: "13", source: TABLE },
    { from: "2016-07-01", to: null, rate: "15", source: TABLE },
  ],
  NS: [
    { from: "2010-07-01", to: "2025-03-31", rate: "15", source: TABLE },
    { from: "2025-04-01", to: null, rate: "14", source: NS_NOTICE },
  ],
  PE: [
    { from: "2013-04-01", to: "2016-09-30", rate: "14", source: TABLE },
    { from: "2016-10-01", to: null, rate: "15", source: TABLE },
  ],
  FED: [{ from: "2010-07-01", to: null, rate: "5", source: "Deduction for Provincial Rebate Regulations" }],
  "D-ON": [{ from: "2010-07-01", to: null, rate: "8", source: "ETA 220.05, Sch. VIII" }],
  "D-NS": [
    { from: "2010-07-01", to: "2025-03-31", rate: "10", source: "ETA 220.05, Sch. VIII" },
    { from: "2025-04-01", to: null, rate: "9", source: NS_NOTICE },
  ],
  "D-NB": [{ from: "2016-07-01", to: null, rate: "10", source: "ETA 220.05, Sch. VIII" }],
  "D-NL": [{ from: "2016-07-01", to: null, rate: "10", source: "ETA 220.05, Sch. VIII" }],
  "D-PE": [{ from: "2016-10-01", to: null, rate: "10", source: "ETA 220.05, Sch. VIII" }],
  QST: [{ from: "2013-01-01", to: null, rate: "9.975", source: "AQST s. 16" }],
  BCPST: [{ from: "2013-04-01", to: null, rate: "7", source: "Provincial Sales Tax Act (BC)" }],
  SKPST: [
    {
      from: "2006-10-28",
      to: "2017-03-22",
      rate: "5",
      source: "The Provincial Sales Tax Act (SK), from memory",
    },
    { from: "2017-03-23", to: null, rate: "6", source: "The Provincial Sales Tax Act (SK)" },
  ],
  MBRST: [
    { from: "2013-07-01", to: "2019-06-30", rate: "8", source: "The Retail Sales Tax Act (MB)" },
    { from: "2019-07-01", to: null, rate: "7", source: "The Retail Sales Tax Act (MB)" },
  ],
});

/** What the schedules are called. */
export const rateNames = namesOf("ca", {
  ...quickRateNames,
  VEHICLE: "Passenger vehicle cap",
  ZEV: "Zero-emission vehicle cap",
  GST: "GST",
  ZERO: "Zero rate",
  ON: "HST, Ontario",
  NB: "HST, New Brunswick",
  NL: "HST, Newfoundland and Labrador",
  NS: "HST, Nova Scotia",
  PE: "HST, Prince Edward Island",
  FED: "Federal part of HST",
  "D-ON": "Provincial part of HST, Ontario",
  "D-NS": "Provincial part of HST, Nova Scotia",
  "D-NB": "Provincial part of HST, New Brunswick",
  "D-NL": "Provincial part of HST, Newfoundland and Labrador",
  "D-PE": "Provincial part of HST, Prince Edward Island",
  QST: "QST",
  BCPST: "Sales tax, British Columbia",
  SKPST: "Sales tax, Saskatchewan",
  MBRST: "Retail sales tax, Manitoba",
});
