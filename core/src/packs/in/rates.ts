import type { RateMove } from "../../model/rateChange.ts";
import type { RateRow } from "../../model/taxCode.ts";
import { namesOf, schedulesOf } from "../shared/codeRows.ts";
import { collectionRateNames, collectionRates } from "./collection.ts";

const START = "2017-07-01";
const RESTRUCTURED = "N 9/2025-CTR of 17 September 2025";

interface Slab {
  value: string;
  percent: string;
  half: string;
  rows: [from: string, to: string | null, source: string, doubt?: string][];
}

/** The slabs of IGST; CGST and SGST bear half each. 12 and 28 ended with the restructuring of 22 September 2025. */
// prettier-ignore
export const SLABS: Slab[] = [
  { value: "025", percent: "0.25", half: "0.125", rows: [[START, null, "N 1/2017-CTR; 9/2025-CTR Sch. V"]] },
  { value: "15", percent: "1.5", half: "0.75", rows: [["2019-10-01", null, "N 20/2019-CTR, 6/2022-CTR; 9/2025-CTR Sch. VI"]] },
  { value: "3", percent: "3", half: "1.5", rows: [[START, null, "N 1/2017-CTR; 9/2025-CTR Sch. IV"]] },
  { value: "5", percent: "5", half: "2.5", rows: [[START, null, "N 1/2017-CTR, 11/2017-CTR; 9/2025-CTR Sch. I"]] },
  { value: "12", percent: "12", half: "6", rows: [[START, "2025-09-21", "N 1/2017-CTR Sch. II; ended by " + RESTRUCTURED]] },
  { value: "18", percent: "18", half: "9", rows: [[START, null, "N 1/2017-CTR Sch. III; 9/2025-CTR Sch. II"]] },
  { value: "28", percent: "28", half: "14", rows: [[START, "2026-01-31", "N 1/2017-CTR Sch. IV; from 22 September 2025 for the tobacco list only", "the last day of the tobacco list was not seen"]] },
  { value: "40", percent: "40", half: "20", rows: [["2025-09-22", null, "N 9/2025-CTR Sch. III", "which goods are in this slab was not seen; tobacco joins it on 1 February 2026"]] },
  { value: "01", percent: "0.1", half: "0.05", rows: [["2017-10-23", null, "N 40/2017-CTR, 41/2017-ITR"]] },
  { value: "1", percent: "1", half: "0.5", rows: [["2019-04-01", null, "N 3/2019-CTR"]] },
  { value: "6", percent: "6", half: "3", rows: [["2022-04-01", null, "N 2/2022-CTR", "bricks without credit; N 14/2025-CTR was not seen"]] },
];

const rowsOf = (rate: string, rows: Slab["rows"]): RateRow[] =>
  rows.map(([from, to, source, doubt]) => ({
    from,
    to,
    rate,
    source,
    ...(doubt === undefined ? {} : { doubt }),
  }));

export const schedules = schedulesOf("in", {
  LATE: [{ from: "2017-07-01", to: null, rate: "18", source: "CGST s.50, N 13/2017-CT" }],
  ...collectionRates,
  ...Object.fromEntries(SLABS.map(({ value, percent, rows }) => [`I${value}`, rowsOf(percent, rows)])),
  ...Object.fromEntries(SLABS.map(({ value, half, rows }) => [`C${value}`, rowsOf(half, rows)])),
  ZERO: [{ from: START, to: null, rate: "0", source: "IGST s.16" }],
  /** Invoice value above which a supply to an unregistered customer in another state is listed by invoice. */
  B2CL: [
    { from: START, to: "2024-07-31", rate: "250000", source: "CGST Rules R.59" },
    { from: "2024-08-01", to: null, rate: "100000", source: "N 12/2024-CT" },
  ],
  /** State VAT and central sales tax, to the end of June 2017. */
  VATLOW: [
    { from: "2005-04-01", to: "2011-03-31", rate: "4", source: "state VAT Acts; from memory" },
    { from: "2011-04-01", to: "2017-06-30", rate: "5", source: "state VAT Acts; from memory" },
  ],
  VATHIGH: [
    {
      from: "2005-04-01",
      to: "2017-06-30",
      rate: "12.5",
      source: "state VAT Acts",
      doubt: "many states rose later, each on its own day",
    },
  ],
  CST: [
    { from: "2005-04-01", to: "2007-03-31", rate: "4", source: "Central Sales Tax Act; from memory" },
    { from: "2007-04-01", to: "2008-05-31", rate: "3", source: "Central Sales Tax Act; from memory" },
    { from: "2008-06-01", to: "2017-06-30", rate: "2", source: "Central Sales Tax Act, with Form C" },
  ],
});

/** What the schedules are called. */
export const rateNames = namesOf("in", {
  LATE: "Interest on cash paid late",
  ...collectionRateNames,
  ...Object.fromEntries(
    SLABS.map(({ value, percent }) => [`I${value}`, `Integrated tax, slab of ${percent} %`]),
  ),
  ...Object.fromEntries(
    SLABS.map(({ value, percent }) => [`C${value}`, `Central or state tax, slab of ${percent} %`]),
  ),
  ZERO: "Zero rate",
  B2CL: "Invoice value above which a supply is listed by invoice",
  VATLOW: "State VAT, lower rate",
  VATHIGH: "State VAT, higher rate",
  CST: "Central sales tax",
});

/** Which slabs items went to on 22 September 2025. */
const MOVED: readonly (readonly [from: string, to: readonly string[]])[] = [
  ["12", ["5", "18", "0"]],
  ["18", ["5", "0"]],
  ["5", ["18", "0"]],
  ["28", ["18", "40"]],
];

/** What was sold or bought at one slab and is at another since: `0` is nil rated, which has no code of a slab. */
export const rateMoves: RateMove[] = ["S", "P"].flatMap((family) =>
  MOVED.map(([from, to]) => ({
    on: "2025-09-22",
    before: { code: family + from, rate: from },
    after: to
      .filter((rate) => rate !== "0" || family === "S")
      .map((rate) => ({ code: rate === "0" ? "NIL" : family + rate, rate })),
    source: RESTRUCTURED,
  })),
);
