import type { Circumstances } from "../model/circumstances.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import type { Packs } from "../model/packs.ts";
import type { Party } from "../model/party.ts";
import type { Direction, TaxCode } from "../model/taxCode.ts";
import { regionOf } from "./regions.ts";

/**
 * The circumstances of a supply:
 * - `note` invoice | credit; `direction`; `supply` goods | services
 * - `home` our country, `country` the other side's, `place` our region, `there` the region of the other side (ours where it has none)
 * - `stack` the region whose levies apply, `state` the state it lies in, `homeState` ours; what is bought is used at our place
 * - `abroad` yes | no, `union` yes | no: where the other side is
 * - `scope` local | inter: whether the supply crosses a border, between regions or countries
 * - `party` registered | unregistered, or what its standing says: composition, resale …
 * - `unknown`: what nobody has said and may matter, of region and standing, with blanks between
 * - `original`, `size`, `originalSize`: added for boxes, see factBoxes.ts
 * - each attribute of the line under its name with @ in front
 * @param direction side of the supply; the kind of document tells it, on a journal the code
 */
export function circumstancesOf(
  document: Pick<DocumentInput, "site" | "party">,
  line: Pick<LineInput, "supply" | "attributes">,
  direction: Direction,
  credit: boolean,
  packs: Packs,
  code?: Pick<TaxCode, "scope" | "supply">,
): Circumstances {
  const { site, party } = document;
  const home = site?.country ?? "";
  const pack = packs.ofCountry(home);
  const country = party?.country ?? home;
  const told = pack?.placeAttribute === undefined ? undefined : line.attributes?.[pack.placeAttribute];
  const place = regionOf(pack, told ?? site?.region ?? null, null);
  const abroad = home !== "" && country !== home;
  const theirs = abroad ? "" : regionOf(pack, party?.region ?? null, party?.taxNumber ?? null);
  const there = abroad ? "" : theirs || place;
  const supply = line.supply ?? (code && code.supply !== "both" ? code.supply : "");
  return {
    direction,
    note: credit ? "credit" : "invoice",
    supply,
    home,
    country,
    place,
    there,
    ...sourcedTo(pack, place, direction === "purchase" ? place : there, site?.engaged),
    abroad: yesNo(abroad),
    union: yesNo(country !== home && (pack?.union?.members.has(country) ?? false)),
    scope: code?.scope ?? (abroad || crosses(pack, party) || place !== there ? "inter" : "local"),
    party: standingOf(party),
    unknown: unknownOf(party, direction, abroad || theirs !== "" || !pack?.regions),
    ...Object.fromEntries(Object.entries(line.attributes ?? {}).map(([key, value]) => [`@${key}`, value])),
  };
}

/** The region whose levies apply, and the state it lies in (the part before the dash). */
function sourcedTo(
  pack: JurisdictionPack | undefined,
  place: string,
  there: string,
  engaged: readonly string[] = [],
): { stack: string; state: string; homeState: string } {
  const stack = pack?.sourcing?.(place, there, engaged) ?? there;
  return { stack, state: stateOf(stack), homeState: stateOf(place) };
}

function stateOf(region: string): string {
  const dash = region.indexOf("-");
  return dash < 0 ? region : region.slice(0, dash);
}

/** Whether the other side is treated as across the border wherever it is, as special economic zones are. */
function crosses(pack: JurisdictionPack | undefined, party: Party | undefined): boolean {
  if (!pack?.standings || !party) return false;
  const held = Object.values(party.standing);
  return pack.standings.some((one) => one.crosses === true && held.includes(one.id));
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

/** Whoever buys without giving a name is a consumer at our counter; whoever sells without one is not known at all. */
function unknownOf(party: Party | undefined, direction: Direction, regionKnown: boolean): string {
  if (!party) return direction === "purchase" ? "standing" : "";
  const said =
    party.registered !== null ||
    Boolean(party.taxNumber) ||
    Object.values(party.standing).some((one) => one !== "");
  return [...(regionKnown ? [] : ["region"]), ...(said ? [] : ["standing"])].join(" ");
}

function yesNo(holds: boolean): string {
  return holds ? "yes" : "no";
}
