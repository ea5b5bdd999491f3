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

const LOCAL = "the state's table of local rates";
const DOUBT = "a local rate from memory; cities and districts change theirs";
const since = (rate: string, from = "2018-01-01", source = LOCAL): RateRow[] => [
  local({ from, to: null, rate, source }),
];

/** A local rate carries the doubt of all of them. */
function local(row: RateRow): RateRow {
  return row.source === LOCAL ? { ...row, doubt: DOUBT } : row;
}

const TEXAS = ["TX", "TX-HOU", "TX-AUS"];
const FLORIDA = ["FL", "FL-MIA", "FL-BRO"];
const NEW_YORK = ["NY", "NY-NYC"];
const TENNESSEE = ["TN", "TN-NAS"];
const ILLINOIS = ["IL", "IL-CHI"];
const CALIFORNIA = ["CA", "CA-LAX", "CA-SFO"];
const PENNSYLVANIA = ["PA", "PA-PHL", "PA-PIT"];
const GEORGIA = ["GA", "GA-ATL"];

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
  { id: "FL-BRO", state: "FL", name: "Broward surtax", locations: ["FL-BRO"], rows: [local({ from: "2018-01-01", to: "2018-12-31", rate: "0", source: LOCAL }), ...since("1", "2019-01-01")], base: { upTo: "5000" } },
  { id: "NY", state: "NY", name: "New York State", locations: NEW_YORK, rows: since("4", "2005-06-01", "Tax Law § 1105; from memory") },
  { id: "NY-NYC", state: "NY", name: "New York City", locations: ["NY-NYC"], rows: since("4.5", "2009-08-01") },
  { id: "NY-MCTD", state: "NY", name: "Metropolitan commuter district", locations: ["NY-NYC"], rows: since("0.375") },
  { id: "TN", state: "TN", name: "Tennessee", locations: TENNESSEE, rows: since("7", "2002-07-15", "Tenn. Code § 67-6-202; from memory") },
  { id: "TN-NAS", state: "TN", name: "Nashville local", locations: ["TN-NAS"], rows: [local({ from: "2018-01-01", to: "2025-01-31", rate: "2.25", source: LOCAL }), ...since("2.75", "2025-02-01")], base: { upTo: "1600" } },
  { id: "TN-SAT", state: "TN", name: "Tennessee single article", locations: TENNESSEE, rows: since("2.75"), base: { over: "1600", upTo: "3200" }, goodsOnly: true },
  { id: "IL", state: "IL", name: "Illinois", locations: ILLINOIS, rows: since("6.25", "1990-01-01", "35 ILCS 120; from memory") },
  { id: "IL-COOK", state: "IL", name: "Cook County", locations: ["IL-CHI"], rows: since("1.75") },
  { id: "IL-CHI", state: "IL", name: "City of Chicago", locations: ["IL-CHI"], rows: since("1.25") },
  { id: "IL-RTA", state: "IL", name: "Regional transit", locations: ["IL-CHI"], rows: since("1") },
  { id: "CA", state: "CA", name: "California", locations: CALIFORNIA, rows: since("6", "2017-01-01", "Cal. Rev. & Tax. Code § 6051; from memory") },
  { id: "CA-COUNTY", state: "CA", name: "California county", locations: CALIFORNIA, rows: since("0.25", "2017-01-01", "Cal. Rev. & Tax. Code § 7202; from memory") },
  { id: "CA-LOCAL", state: "CA", name: "California local", locations: CALIFORNIA, rows: since("1", "2017-01-01", "Cal. Rev. & Tax. Code § 7203; from memory") },
  { id: "CA-LAX", state: "CA", name: "Los Angeles districts", locations: ["CA-LAX"], rows: [local({ from: "2017-10-01", to: "2025-03-31", rate: "2.25", source: LOCAL }), ...since("2.5", "2025-04-01")] },
  { id: "CA-SFO", state: "CA", name: "San Francisco districts", locations: ["CA-SFO"], rows: since("1.375", "2021-07-01") },
  { id: "PA", state: "PA", name: "Pennsylvania", locations: PENNSYLVANIA, rows: since("6", "1990-01-01", "Tax Reform Code § 202; from memory") },
  { id: "PA-PHL", state: "PA", name: "City of Philadelphia", locations: ["PA-PHL"], rows: since("2", "2009-10-08") },
  { id: "PA-PIT", state: "PA", name: "Allegheny County", locations: ["PA-PIT"], rows: since("1") },
  { id: "GA", state: "GA", name: "Georgia", locations: GEORGIA, rows: since("4", "1989-04-01", "O.C.G.A. § 48-8-30; from memory") },
  { id: "GA-MARTA", state: "GA", name: "Atlanta transit", locations: ["GA-ATL"], rows: since("1.5") },
  { id: "GA-LOST", state: "GA", name: "Fulton local option", locations: ["GA-ATL"], rows: since("1") },
  { id: "GA-EDU", state: "GA", name: "Fulton and Atlanta schools", locations: ["GA-ATL"], rows: since("1") },
  { id: "GA-TSP", state: "GA", name: "Atlanta transport", locations: ["GA-ATL"], rows: since("0.4") },
  { id: "GA-MOST", state: "GA", name: "Atlanta water", locations: ["GA-ATL"], rows: since("1") },
];

const FOOD = "which foods are in it was not looked up";

/** Rates of a state for single classes of goods, in the place of its ordinary one; `local`: local taxes come on top. */
export const REDUCED: { state: string; schedule: string; name: string; local: boolean; rows: RateRow[] }[] = [
  {
    state: "IL",
    schedule: "IL-FOOD",
    name: "Illinois, food and medicine",
    local: false,
    rows: [
      { from: "1990-01-01", to: "2025-12-31", rate: "1", source: "35 ILCS 120/2-10", doubt: FOOD },
      { from: "2026-01-01", to: null, rate: "0", source: "Public Act 103-0781", doubt: FOOD },
    ],
  },
  {
    state: "TN",
    schedule: "TN-FOOD",
    name: "Tennessee, food",
    local: true,
    rows: [{ from: "2017-07-01", to: null, rate: "4", source: "Tenn. Code § 67-6-228", doubt: FOOD }],
  },
];

/** The states with their name; the state's own body has the same id. */
export const STATES = ["TX", "FL", "NY", "TN", "IL", "CA", "PA", "GA"] as const;

/** States whose sellers inside the state charge the taxes of their own place. */
const ORIGIN_STATES = new Set(["TX", "TN", "IL", "PA"]);

/** States whose districts tax only who is in business there: elsewhere in the state a seller inside it charges the base. */
const BASE_ELSEWHERE = new Set(["CA"]);

/** Whose taxes a sale bears: the destination's, except for sellers inside a state that has it otherwise. */
export function sourcedTo(place: string, there: string, engaged: readonly string[] = []): string {
  const state = (region: string) => region.slice(0, 2);
  if (there === "" || there === place) return place;
  if (state(place) !== state(there)) return there;
  if (ORIGIN_STATES.has(state(place))) return place;
  const atHome = engaged.includes(there) || engaged.includes(`${state(there)}-*`);
  return BASE_ELSEWHERE.has(state(place)) && !atHome ? state(place) : there;
}
