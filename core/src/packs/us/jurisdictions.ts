import type { BaseSpec, RateRow } from "../../model/taxCode.ts";

/**
 * One body that levies sales tax. `id` is the end of its levy (`SALES:TX-HOU`) and of its boxes (`G5.TX-HOU`);
 * `locations` are the places whose stack it belongs to.
 */
export interface TaxBody {
  id: string;
  state: string;
  name: string;
  locations: readonly string[];
  rows: readonly RateRow[];
  base?: BaseSpec;
  /** Only on goods, where the law says so. */
  goodsOnly?: boolean;
}

const LOCAL = "local rate, from memory; check it before use";
const since = (rate: string, from = "2018-01-01", source = LOCAL): RateRow[] => [
  { from, to: null, rate, source },
];

const TEXAS = ["TX", "TX-HOU", "TX-AUS"];
const FLORIDA = ["FL", "FL-MIA", "FL-BRO"];
const NEW_YORK = ["NY", "NY-NYC"];
const TENNESSEE = ["TN", "TN-NAS"];
const ILLINOIS = ["IL", "IL-CHI"];

// prettier-ignore
/** Example locations, in the order state, county, city, district. */
export const BODIES: TaxBody[] = [
  { id: "TX", state: "TX", name: "Texas", locations: TEXAS, rows: since("6.25", "1990-07-01", "Tex. Tax Code § 151.051; from memory") },
  { id: "TX-HOU", state: "TX", name: "City of Houston", locations: ["TX-HOU"], rows: since("1") },
  { id: "TX-HOU-MTA", state: "TX", name: "Houston transit authority", locations: ["TX-HOU"], rows: since("1") },
  { id: "TX-AUS", state: "TX", name: "City of Austin", locations: ["TX-AUS"], rows: since("1") },
  { id: "TX-AUS-MTA", state: "TX", name: "Austin transit authority", locations: ["TX-AUS"], rows: since("1") },
  { id: "FL", state: "FL", name: "Florida", locations: FLORIDA, rows: since("6", "1988-02-01", "Fla. Stat. § 212.05; from memory") },
  { id: "FL-MIA", state: "FL", name: "Miami-Dade surtax", locations: ["FL-MIA"], rows: since("1"), base: { upTo: "5000" } },
  { id: "FL-BRO", state: "FL", name: "Broward surtax", locations: ["FL-BRO"], rows: [{ from: "2018-01-01", to: "2018-12-31", rate: "0", source: LOCAL }, ...since("1", "2019-01-01")], base: { upTo: "5000" } },
  { id: "NY", state: "NY", name: "New York State", locations: NEW_YORK, rows: since("4", "2005-06-01", "Tax Law § 1105; from memory") },
  { id: "NY-NYC", state: "NY", name: "New York City", locations: ["NY-NYC"], rows: since("4.5", "2009-08-01") },
  { id: "NY-MCTD", state: "NY", name: "Metropolitan commuter district", locations: ["NY-NYC"], rows: since("0.375") },
  { id: "TN", state: "TN", name: "Tennessee", locations: TENNESSEE, rows: since("7", "2002-07-15", "Tenn. Code § 67-6-202; from memory") },
  { id: "TN-NAS", state: "TN", name: "Nashville local", locations: ["TN-NAS"], rows: [{ from: "2018-01-01", to: "2025-01-31", rate: "2.25", source: LOCAL }, ...since("2.75", "2025-02-01")], base: { upTo: "1600" } },
  { id: "TN-SAT", state: "TN", name: "Tennessee single article", locations: TENNESSEE, rows: since("2.75"), base: { over: "1600", upTo: "3200" }, goodsOnly: true },
  { id: "IL", state: "IL", name: "Illinois", locations: ILLINOIS, rows: since("6.25", "1990-01-01", "35 ILCS 120; from memory") },
  { id: "IL-COOK", state: "IL", name: "Cook County", locations: ["IL-CHI"], rows: since("1.75") },
  { id: "IL-CHI", state: "IL", name: "City of Chicago", locations: ["IL-CHI"], rows: since("1.25") },
  { id: "IL-RTA", state: "IL", name: "Regional transit", locations: ["IL-CHI"], rows: since("1") },
];

/** The states with their name; the state's own body has the same id. */
export const STATES = ["TX", "FL", "NY", "TN", "IL"] as const;

/** States whose sellers inside the state charge the taxes of their own place (to be verified for Tennessee, Illinois). */
const ORIGIN_STATES = new Set(["TX", "TN", "IL"]);

/** Whose taxes a sale bears: the destination's, except for sellers inside an origin state. */
export function sourcedTo(place: string, there: string): string {
  const state = (region: string) => region.slice(0, 2);
  if (there === "" || (state(place) === state(there) && ORIGIN_STATES.has(state(place)))) return place;
  return there;
}
