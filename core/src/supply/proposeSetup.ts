import { rhythmsFor } from "../model/registration.ts";
import type { Packs } from "../model/packs.ts";
import type { FilingRhythm, JurisdictionPack } from "../model/pack.ts";
import { regionOf } from "./regions.ts";
import type { SupplyRule } from "../model/supplyRule.ts";

/** What somebody says of a business when it is set up. */
export interface BusinessAnswers {
  country: string;
  region: string | null;
  /** What it does, by an id of activitiesOf. */
  activity: string;
  /** Who it sells to. */
  customers: readonly ("home" | "businesses" | "abroad")[];
  /** How often it files; the usual rhythm of the jurisdiction where left out. */
  rhythm?: string;
}

export const ACTIVITIES = [
  { id: "goods", name: "Sells goods" },
  { id: "services", name: "Sells services" },
  { id: "food", name: "Restaurant, café, accommodation" },
  { id: "building", name: "Builds" },
  { id: "used", name: "Sells second-hand goods" },
] as const;

export interface ProposedRegistration {
  pack: string;
  levies: string[];
  name: string;
  authority: string;
  rhythm: FilingRhythm | undefined;
  why: string;
  /** Whether it is needed once the limits are passed, or only perhaps. */
  certain: boolean;
}

export interface SetupProposal {
  pack: JurisdictionPack | undefined;
  region: string;
  registrations: ProposedRegistration[];
  /** Tax classes the business will need, with the code each leads to at home. */
  classes: { id: string; name: string; sale: string; purchase: string; why: string }[];
  /** The supply rules that answer for customers abroad, as far as it has them. */
  abroad: readonly SupplyRule[];
  accounts: number;
  notes: JurisdictionPack["notes"];
}

/** What a business of a country can say it does: what every place asks, and the trades with levies or classes of their own. */
export function activitiesOf(pack: JurisdictionPack | undefined): { id: string; name: string }[] {
  return [...ACTIVITIES, ...(pack?.activities ?? []).map(({ id, name }) => ({ id, name }))];
}

/** The levies a place may need, each group with the reason, and the codes and accounts that come with them. */
export function proposeSetup(answers: BusinessAnswers, packs: Packs): SetupProposal {
  const pack = packs.ofCountry(answers.country);
  if (!pack) {
    return { pack, region: "", registrations: [], classes: [], abroad: [], accounts: 0, notes: [] };
  }
  const region = regionOf(pack, answers.region, null);
  return {
    pack,
    region,
    registrations: proposedRegistrations(pack, region, answers),
    classes: proposedClasses(pack, answers),
    abroad: rulesAbroad(pack, answers),
    accounts: pack.accounts.length,
    notes: pack.notes,
  };
}

/** The registrations a place may need: one a group of levies that is filed together. */
export function proposedRegistrations(
  pack: JurisdictionPack,
  region: string,
  answers: Pick<BusinessAnswers, "activity" | "rhythm">,
): ProposedRegistration[] {
  return levyGroups(pack).flatMap((group) => {
    const fitting = group.filter(
      ({ onlyFor }) => onlyFor === undefined || onlyFor.includes(answers.activity),
    );
    const lead = fitting[0];
    if (!lead || !concerns(lead.regions, region) || onlyForOldBooks(pack, lead.levy)) return [];
    const levies = fitting.map(({ levy }) => levy);
    const offered = rhythmsFor(pack, levies);
    const everywhere = lead.regions === undefined || lead.levy === pack.levies[0]?.levy;
    return [
      {
        pack: pack.id,
        levies,
        name: lead.name,
        authority: lead.authority ?? pack.authority,
        rhythm: offered.find((one) => one.id === answers.rhythm) ?? offered[0],
        why: everywhere
          ? `${lead.name} is charged in all of ${pack.name}.`
          : `${lead.name} is charged in ${nameOf(pack, region)}.`,
        certain: everywhere,
      },
    ];
  });
}

/** What a business can register for in a jurisdiction, one a group of levies that is filed together. */
export function registrable(pack: JurisdictionPack): { levies: string[]; name: string }[] {
  return levyGroups(pack).flatMap((group) => {
    const [lead] = group;
    if (!lead || onlyForOldBooks(pack, lead.levy)) return [];
    const own = group.filter(({ onlyFor }) => onlyFor === undefined || lead.onlyFor !== undefined);
    return [{ levies: own.map(({ levy }) => levy), name: own.map(({ name }) => name).join(", ") }];
  });
}

function levyGroups(pack: JurisdictionPack): JurisdictionPack["levies"][number][][] {
  const done = new Set<string>();
  const groups: JurisdictionPack["levies"][number][][] = [];
  for (const levy of pack.levies) {
    if (done.has(levy.levy)) continue;
    const group = pack.levies.filter((one) => one.levy === levy.levy || levy.with?.includes(one.levy));
    for (const member of group) done.add(member.levy);
    groups.push(group);
  }
  return merged(pack, groups);
}

/** Levies that share a form, or have none of their own, are one registration: a levy on some goods goes on the statement of the usual one. */
function merged(
  pack: JurisdictionPack,
  groups: JurisdictionPack["levies"][number][][],
): JurisdictionPack["levies"][number][][] {
  const [first = [], ...rest] = groups;
  const lead = first[0]?.levy ?? "";
  const withFirst = (group: JurisdictionPack["levies"][number][]) => {
    const forms = pack.forms.filter((form) => group.some(({ levy }) => form.levies.includes(levy)));
    return forms.every((form) => form.levies.includes(lead));
  };
  const joined = rest.filter(withFirst);
  return [[...first, ...joined.flat()], ...rest.filter((group) => !joined.includes(group))];
}

function concerns(regions: readonly string[] | undefined, region: string): boolean {
  if (regions === undefined) return true;
  return regions.some((one) => one === region || region.startsWith(`${one}-`));
}

/** A levy all of whose forms have ended. */
function onlyForOldBooks(pack: JurisdictionPack, levy: string): boolean {
  const forms = pack.forms.filter((form) => form.levies.includes(levy));
  return forms.length > 0 && forms.every((form) => form.to !== null);
}

function nameOf(pack: JurisdictionPack, region: string): string {
  return pack.regions?.find((one) => one.code === region)?.name ?? region;
}

const BY_ACTIVITY: Readonly<Record<string, readonly string[]>> = {
  food: ["hospitality", "accommodation", "zero", "reduced", "lodging"],
  building: ["reduced", "listed"],
  used: ["second-hand"],
  goods: ["zero", "reduced"],
  services: [],
};

function proposedClasses(pack: JurisdictionPack, answers: BusinessAnswers): SetupProposal["classes"] {
  const theirs = pack.activities?.find(({ id }) => id === answers.activity)?.classes ?? [];
  const wanted = new Set(["standard", "exempt", ...(BY_ACTIVITY[answers.activity] ?? theirs)]);
  return pack.classes
    .filter(({ id }) => wanted.has(id))
    .map(({ id, name }) => ({
      id,
      name,
      sale: codeFor(pack, id, "sale"),
      purchase: codeFor(pack, id, "purchase"),
      why:
        id === "standard"
          ? "most supplies"
          : id === "exempt"
            ? "interest, rent and the like"
            : "from what the business does",
    }));
}

/** Sales over the border, of what the business sells, to the customers it has. */
function rulesAbroad(pack: JurisdictionPack, { activity, customers }: BusinessAnswers): SupplyRule[] {
  const supply = activity === "services" || activity === "building" ? "services" : "goods";
  return pack.rules.filter(
    (rule) =>
      rule.direction === "sale" &&
      rule.taxClass === "standard" &&
      ABROAD.has(rule.to) &&
      (rule.supply === "any" || rule.supply === supply) &&
      ((customers.includes("businesses") && rule.party !== "unregistered") ||
        (customers.includes("abroad") && rule.party !== "registered")),
  );
}

const ABROAD = new Set(["abroad", "union", "outside-union"]);

function codeFor(pack: JurisdictionPack, taxClass: string, direction: "sale" | "purchase"): string {
  const rules = pack.rules.filter((rule) => rule.taxClass === taxClass && rule.direction === direction);
  const rule = rules.find(({ to }) => to === "home") ?? rules[0];
  return rule === undefined ? "" : rule.code;
}
