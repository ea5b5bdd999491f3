import { FiscalError } from "@fiscalon/core/errors";
import { isRegionOf, regionOf } from "@fiscalon/core/supply/regions";
import type { Work } from "../base/work.ts";

/** @throws FiscalError `place/unknown-region` where the country is known to have no such region */
export function requireRegion({ packs }: Work, country: string, region: string | null): void {
  const pack = packs.ofCountry(country);
  if (region === null || region.trim() === "" || isRegionOf(pack, region)) return;
  const known = (pack?.regions ?? []).map(({ code, name }) => `${code} ${name}`).join(", ");
  throw new FiscalError(
    "place/unknown-region",
    `${pack?.name ?? country} has no region "${region}". Known: ${known}.`,
    "region",
  );
}

/**
 * A region as it is kept: by its code, however it was written.
 * @throws FiscalError `place/unknown-region`
 */
export function regionKept(work: Work, country: string, region: string | null): string | null {
  requireRegion(work, country, region);
  return regionOf(work.packs.ofCountry(country), region, null) || null;
}
