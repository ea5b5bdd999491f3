import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { Packs } from "../model/packs.ts";
import type { JurisdictionPack, Levy } from "../model/pack.ts";

/** A site of the business: where levies come from. */
export interface AskingSite {
  name: string;
  country: string;
  region: string | null;
  closedOn: CalendarDate | null;
}

/** A registration of the business, as far as it makes a standing matter. */
export interface AskingRegistration {
  pack: string;
  levies: readonly string[];
  from: CalendarDate;
  to: CalendarDate | null;
}

/** Something every contact is asked: what it is for a levy. */
export interface StandingAsked {
  country: string;
  levy: string;
  name: string;
  /** The sentence that says why it is asked. */
  reason: string;
  /** What the answer can be, first the usual one. */
  answers: { id: string; name: string; needs: string | null }[];
}

/**
 * The standings to ask of each contact: every levy of a country in which the business has an open site or a
 * registration, as far as the levy is charged there. The list grows and shrinks with sites and registrations.
 * Levies that come as one (GST and HST) are asked once.
 */
export function standingsAsked(
  sites: readonly AskingSite[],
  registrations: readonly AskingRegistration[],
  on: CalendarDate,
  packs: Packs,
): StandingAsked[] {
  const open = sites.filter((site) => site.closedOn === null || on < site.closedOn);
  const inForce = registrations.filter((r) => r.from <= on && (r.to === null || on <= r.to));
  return packsConcerned(open, inForce, packs).flatMap((pack) =>
    leadLevies(pack).flatMap((levy) => {
      const reason = reasonFor(pack, levy, open, inForce);
      return reason === null
        ? []
        : [{ country: pack.country, levy: levy.levy, name: levy.name, reason, answers: answersFor(pack) }];
    }),
  );
}

function packsConcerned(
  sites: readonly AskingSite[],
  registrations: readonly AskingRegistration[],
  packs: Packs,
): JurisdictionPack[] {
  const ofSites = sites.map(({ country }) => packs.ofCountry(country));
  const all = [...ofSites, ...registrations.map((r) => packs.byId(r.pack))];
  return [...new Set(all.filter((pack) => pack !== undefined))];
}

/** One levy of each group that is registered together: the first of it. */
function leadLevies(pack: JurisdictionPack): Levy[] {
  return pack.levies.filter((levy, index) => {
    const earlier = pack.levies.slice(0, index).map((one) => one.levy);
    return !(levy.with ?? []).some((other) => earlier.includes(other));
  });
}

function reasonFor(
  pack: JurisdictionPack,
  levy: Levy,
  sites: readonly AskingSite[],
  registrations: readonly AskingRegistration[],
): string | null {
  const site = sites.find(
    ({ country, region }) =>
      country === pack.country &&
      (levy.regions === undefined ||
        levy.regions.some((one) => one === region || region?.startsWith(`${one}-`))),
  );
  if (site) return `because you sell from ${placeInWords(site, pack)}`;
  const registration = registrations.find(
    (r) => (r.pack === pack.id || pack.aliases?.includes(r.pack)) && r.levies.includes(levy.levy),
  );
  return registration ? `because you are registered for it since ${displayDate(registration.from)}` : null;
}

function placeInWords({ name, region }: AskingSite, pack: JurisdictionPack): string {
  return region === null || name === region ? `${name}, ${pack.country}` : `${name}, ${region}`;
}

function answersFor(pack: JurisdictionPack): StandingAsked["answers"] {
  return [
    { id: "registered", name: "registered", needs: null },
    { id: "not-registered", name: "not registered", needs: null },
    ...(pack.standings ?? []).map(({ id, name, needs }) => ({ id, name, needs: needs ?? null })),
  ];
}
