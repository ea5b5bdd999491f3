import { UNION_MEMBERS } from "../jurisdictions/eu/members.ts";
import { packOfCountry } from "../jurisdictions/packs.ts";
import type { DocumentInput, LineInput } from "../tax/documentInput.ts";
import type { Direction, TaxCode, When } from "../tax/taxCode.ts";
import { regionOf } from "./regions.ts";

/** Where one of our places is. `region` as typed: a state, province or emirate. */
export interface Site {
  country: string;
  region: string | null;
}

/** What matters of the other side for tax. `standing` by levy: registered, resale, government, sez … */
export interface Party {
  country: string | null;
  region: string | null;
  registered: boolean | null;
  taxNumber: string | null;
  standing: Readonly<Record<string, string>>;
}

/** What is known of a supply, by key, all as text: what conditions in codes and supply rules are tried on. */
export type Circumstances = Readonly<Record<string, string>>;

/**
 * The circumstances of a supply:
 * - `note` invoice | credit; `direction`; `supply` goods | services
 * - `home` our country, `country` the other side's, `place` our region, `there` the region of the other side (ours where it has none)
 * - `stack` the region whose levies apply, `state` the state it lies in, `homeState` ours
 * - `abroad` yes | no, `union` yes | no: where the other side is
 * - `scope` local | inter: whether the supply crosses a border, between regions or countries
 * - `party` registered | unregistered, or what its standing says: composition, sez, uin, resale …
 * - `original`, `size`, `originalSize`: added for boxes, see factBoxes.ts
 * - each attribute of the line under its name with @ in front
 * @param direction side of the supply; the kind of document tells it, on a journal the code
 */
export function circumstancesOf(
  document: Pick<DocumentInput, "site" | "party">,
  line: Pick<LineInput, "supply" | "attributes">,
  direction: Direction,
  credit: boolean,
  code?: Pick<TaxCode, "scope" | "supply">,
): Circumstances {
  const { site, party } = document;
  const home = site?.country ?? "";
  const country = party?.country ?? home;
  const place = regionOf(home, line.attributes?.["emirate"] ?? site?.region ?? null, null);
  const abroad = home !== "" && country !== home;
  const own = abroad ? "" : regionOf(country, party?.region ?? null, party?.taxNumber ?? null);
  const there = abroad ? "" : own || place;
  const supply = line.supply ?? (code && code.supply !== "both" ? code.supply : "");
  return {
    direction,
    note: credit ? "credit" : "invoice",
    supply,
    home,
    country,
    place,
    there,
    ...sourcedTo(home, place, abroad ? "" : there),
    abroad: yesNo(abroad),
    union: yesNo(UNION_MEMBERS.has(country) && country !== home),
    scope: scopeOf(code?.scope, abroad, place, there, party),
    party: standingOf(party),
    ...Object.fromEntries(Object.entries(line.attributes ?? {}).map(([key, value]) => [`@${key}`, value])),
  };
}

/** The region whose levies apply, and the state it lies in (the part before the dash). */
function sourcedTo(
  home: string,
  place: string,
  there: string,
): { stack: string; state: string; homeState: string } {
  const stack = packOfCountry(home)?.sourcing?.(place, there) ?? there;
  const stateOf = (region: string) => region.split("-")[0] ?? "";
  return { stack, state: stateOf(stack), homeState: stateOf(place) };
}

function scopeOf(
  fixed: string | undefined,
  abroad: boolean,
  place: string,
  there: string,
  party: Party | undefined,
): string {
  if (fixed !== undefined) return fixed;
  if (abroad || Object.values(party?.standing ?? {}).includes("sez")) return "inter";
  return place !== there ? "inter" : "local";
}

const PLAIN = new Set(["registered", "not-registered", ""]);

function standingOf(party: Party | undefined): string {
  if (!party) return "unregistered";
  const special = Object.values(party.standing).find((standing) => !PLAIN.has(standing));
  if (special) return special;
  const registered =
    Object.values(party.standing).includes("registered") || (party.registered ?? Boolean(party.taxNumber));
  return registered ? "registered" : "unregistered";
}

function yesNo(holds: boolean): string {
  return holds ? "yes" : "no";
}

/** Whether circumstances meet a condition: each key has one of the wanted values. */
export function meets(when: When | undefined, circumstances: Circumstances): boolean {
  if (when === undefined) return true;
  return Object.entries(when).every(([key, wanted]) => {
    const value = circumstances[key] ?? "";
    return typeof wanted === "string" ? value === wanted : wanted.includes(value);
  });
}
