import type { RateRow } from "../../model/taxCode.ts";

const SOURCE = "European Commission, Taxes in Europe; from memory";
const always = (rate: string): RateRow[] => [{ from: "2018-01-01", to: null, rate, source: SOURCE }];
const steps = (...rows: [from: string, rate: string][]): RateRow[] =>
  rows.map(([from, rate], index) => {
    const next = rows[index + 1]?.[0];
    return { from, to: next === undefined ? null : dayBefore(next), rate, source: SOURCE };
  });

function dayBefore(date: string): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) - 86_400_000).toISOString().slice(0, 10);
}

/** Standard rates of the 27 members since 2018, by ISO 3166 code. */
export const STANDARD_RATES: Readonly<Record<string, readonly RateRow[]>> = {
  AT: always("20"),
  BE: always("21"),
  BG: always("20"),
  CY: always("19"),
  CZ: always("21"),
  DE: steps(["2018-01-01", "19"], ["2020-07-01", "16"], ["2021-01-01", "19"]),
  DK: always("25"),
  EE: steps(["2018-01-01", "20"], ["2024-01-01", "22"], ["2025-07-01", "24"]),
  ES: always("21"),
  FI: steps(["2018-01-01", "24"], ["2024-09-01", "25.5"]),
  FR: always("20"),
  GR: always("24"),
  HR: always("25"),
  HU: always("27"),
  IE: steps(["2018-01-01", "23"], ["2020-09-01", "21"], ["2021-03-01", "23"]),
  IT: always("22"),
  LT: always("21"),
  LU: steps(["2018-01-01", "17"], ["2023-01-01", "16"], ["2024-01-01", "17"]),
  LV: always("21"),
  MT: always("18"),
  NL: always("21"),
  PL: always("23"),
  PT: always("23"),
  RO: steps(["2018-01-01", "19"], ["2025-08-01", "21"]),
  SE: always("25"),
  SI: always("22"),
  SK: steps(["2018-01-01", "20"], ["2025-01-01", "23"]),
};
