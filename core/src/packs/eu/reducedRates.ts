import { STANDARD_RATES } from "./standardRates.ts";
import type { RateRow } from "../../model/taxCode.ts";

const SOURCE = "European Commission, Taxes in Europe; from memory";
const DOUBT =
  "reduced rates of other members are from memory, and what they are for differs from one to the other";

type Step = readonly [from: string, rate: string];

function rows(steps: readonly Step[]): RateRow[] {
  return steps.map(([from, rate], index) => {
    const next = steps[index + 1]?.[0];
    const to = next === undefined ? null : new Date(Date.parse(next) - 86_400_000).toISOString().slice(0, 10);
    return { from, to, rate, source: SOURCE, doubt: DOUBT };
  });
}

const since2018 = (rate: string): Step[] => [["2018-01-01", rate]];
const then = (before: string, from: string, rate: string): Step[] => [
  ["2018-01-01", before],
  [from, rate],
];

/** Reduced rates of members from the highest to the lowest, with what moved. Denmark has none. */
const REDUCED: Readonly<Record<string, readonly (readonly Step[])[]>> = {
  AT: [since2018("13"), since2018("10"), [["2026-07-01", "4.9"]]],
  BE: [since2018("12"), since2018("6")],
  BG: [since2018("9")],
  CY: [since2018("9"), since2018("5"), [["2023-07-01", "3"]]],
  CZ: [then("15", "2024-01-01", "12")],
  DE: [
    [
      ["2018-01-01", "7"],
      ["2020-07-01", "5"],
      ["2021-01-01", "7"],
    ],
  ],
  EE: [[["2025-01-01", "13"]], since2018("9")],
  ES: [since2018("10"), since2018("4")],
  FI: [then("14", "2026-01-01", "13.5"), since2018("10")],
  FR: [since2018("10"), since2018("5.5"), since2018("2.1")],
  GR: [since2018("13"), since2018("6")],
  HR: [since2018("13"), since2018("5")],
  HU: [since2018("18"), since2018("5")],
  IE: [since2018("13.5"), since2018("9"), since2018("4.8")],
  IT: [since2018("10"), since2018("5"), since2018("4")],
  LT: [then("9", "2026-01-01", "12"), since2018("5")],
  LU: [
    [
      ["2018-01-01", "14"],
      ["2023-01-01", "13"],
      ["2024-01-01", "14"],
    ],
    [
      ["2018-01-01", "8"],
      ["2023-01-01", "7"],
      ["2024-01-01", "8"],
    ],
    since2018("3"),
  ],
  LV: [since2018("12"), since2018("5")],
  MT: [[["2024-01-01", "12"]], since2018("7"), since2018("5")],
  NL: [then("6", "2019-01-01", "9")],
  PL: [since2018("8"), since2018("5")],
  PT: [since2018("13"), since2018("6")],
  RO: [then("9", "2025-08-01", "11")],
  SE: [since2018("12"), since2018("6")],
  SI: [since2018("9.5"), [["2020-01-01", "5"]]],
  SK: [then("10", "2025-01-01", "19"), [["2025-01-01", "5"]]],
};

/** The rates of a member by rank: 0 the standard rate, 1 the highest reduced one, and so on; undefined where it has none. */
export function memberRates(member: string, rank: number): readonly RateRow[] | undefined {
  if (rank === 0) return STANDARD_RATES[member];
  const steps = REDUCED[member]?.[rank - 1];
  return steps === undefined ? undefined : rows(steps);
}
