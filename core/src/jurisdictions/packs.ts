import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { ReturnForm } from "../returns/returnForm.ts";
import { gb } from "./gb/pack.ts";
import type { JurisdictionPack } from "./pack.ts";

/** Every pack that ships, by id. */
export const PACKS: ReadonlyMap<string, JurisdictionPack> = new Map([gb].map((pack) => [pack.id, pack]));

/** @throws FiscalError `jurisdiction/unknown-pack` */
export function packById(id: string): JurisdictionPack {
  const pack = PACKS.get(id);
  if (pack) return pack;
  const known = [...PACKS.keys()].join(", ");
  throw new FiscalError("jurisdiction/unknown-pack", `There is no pack "${id}". Known: ${known}.`, "pack");
}

/** The pack of a country (ISO 3166 alpha-2), or undefined where none ships. */
export function packOfCountry(country: string): JurisdictionPack | undefined {
  return [...PACKS.values()].find((pack) => pack.country === country);
}

/** The version of the return form for a period that ends on `periodEnd`. */
export function formOn(pack: JurisdictionPack, periodEnd: CalendarDate): ReturnForm {
  const form = pack.forms.find((f) => f.from <= periodEnd && (f.to === null || periodEnd <= f.to));
  if (form) return form;
  throw new FiscalError(
    "returns/no-form",
    `The ${pack.name} pack has no form for a period ending ${periodEnd}.`,
  );
}
