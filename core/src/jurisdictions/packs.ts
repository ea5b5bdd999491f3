import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { ReturnForm } from "../returns/returnForm.ts";
import { ae } from "./ae/pack.ts";
import { au } from "./au/pack.ts";
import { ca } from "./ca/pack.ts";
import { de } from "./eu/de/pack.ts";
import { gb } from "./gb/pack.ts";
import { ie } from "./ie/pack.ts";
import { inPack } from "./in/pack.ts";
import { nz } from "./nz/pack.ts";
import type { JurisdictionPack } from "./pack.ts";
import { sg } from "./sg/pack.ts";
import { us } from "./us/pack.ts";
import { za } from "./za/pack.ts";

/** Every pack that ships, by id. */
export const SHIPPED: ReadonlyMap<string, JurisdictionPack> = new Map(
  [gb, ie, ca, au, nz, sg, inPack, ae, za, de, us].map((pack) => [pack.id, pack]),
);

const own = new Map<string, JurisdictionPack>();

/** Makes the practice's own jurisdictions known beside the shipped ones; replaces those made known before. */
export function useOwnPacks(packs: readonly JurisdictionPack[]): void {
  own.clear();
  for (const pack of packs) own.set(pack.id, pack);
}

/** Every pack there is, shipped ones first. */
export function allPacks(): JurisdictionPack[] {
  return [...SHIPPED.values(), ...own.values()];
}

/** Other names under which a pack is asked for. */
const ALIASES: Readonly<Record<string, string>> = { uk: "gb", de: "eu-de", eu: "eu-de" };

/** @throws FiscalError `jurisdiction/unknown-pack` */
export function packById(id: string): JurisdictionPack {
  const name = id.toLowerCase();
  const pack = SHIPPED.get(ALIASES[name] ?? name) ?? own.get(id) ?? own.get(name);
  if (pack) return pack;
  const known = [...SHIPPED.keys(), ...own.keys()].join(", ");
  throw new FiscalError("jurisdiction/unknown-pack", `There is no pack "${id}". Known: ${known}.`, "pack");
}

/** The pack of a country (ISO 3166 alpha-2), or undefined where none is known. */
export function packOfCountry(country: string): JurisdictionPack | undefined {
  if (country === "") return undefined;
  for (const pack of SHIPPED.values()) if (pack.country === country) return pack;
  return [...own.values()].find((pack) => pack.country === country);
}

/** What of a registration decides its form. */
export interface FormChoice {
  levies: readonly string[];
  options?: Readonly<Record<string, string>> | undefined;
}

/**
 * The version of the return form for a period that ends on `periodEnd`: of the forms whose levies the registration
 * all holds, one for an option it chose before the others, then the one with most levies.
 * @throws FiscalError `returns/no-form`
 */
export function formOn(
  pack: JurisdictionPack,
  periodEnd: CalendarDate,
  { levies, options }: FormChoice = { levies: pack.defaultLevies ?? pack.levies.map((one) => one.levy) },
): ReturnForm {
  const [form] = pack.forms
    .filter((f) => f.from <= periodEnd && (f.to === null || periodEnd <= f.to))
    .filter((f) => f.levies.every((levy) => levies.includes(levy)))
    .filter((f) => f.option === undefined || options?.[f.option[0]] === f.option[1])
    .sort(
      (a, b) =>
        Number(b.option !== undefined) - Number(a.option !== undefined) || b.levies.length - a.levies.length,
    );
  if (form) return form;
  throw new FiscalError(
    "returns/no-form",
    `The ${pack.name} pack has no form for ${levies.join(", ")} and a period ending ${periodEnd}.`,
  );
}
