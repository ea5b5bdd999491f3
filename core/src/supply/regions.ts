import type { JurisdictionPack } from "../model/pack.ts";

/**
 * The region of a country as its pack writes it: an alias, another case or a full name are recognised; what is not
 * known stays as typed. Where no region is given, the tax number may tell it (Indian numbers begin with the state).
 * @param pack of the country, where there is one
 * @returns the empty string where nothing tells the region
 */
export function regionOf(
  pack: JurisdictionPack | undefined,
  region: string | null,
  taxNumber: string | null,
): string {
  const text = region?.trim() ?? "";
  if (text === "") return taxNumber ? (pack?.regionOfNumber?.(taxNumber) ?? "") : "";
  const wanted = text.toUpperCase();
  const known = pack?.regions?.find(
    (one) => one.code === wanted || one.name.toUpperCase() === wanted || one.aliases?.includes(wanted),
  );
  return known?.code ?? wanted;
}

/** Whether a region is one of the country; any is, where the pack lists none, or only those that differ. */
export function isRegionOf(pack: JurisdictionPack | undefined, region: string): boolean {
  if (!pack?.regions || pack.elsewhere !== undefined) return true;
  const code = regionOf(pack, region, null);
  return pack.regions.some((one) => one.code === code);
}

/** How boxes name a region: its tag in the pack, or the region itself; empty where the region is not known. */
export function regionTag(pack: JurisdictionPack | undefined, region: string): string {
  if (region === "") return "";
  return pack?.regions?.find((one) => one.code === region)?.tag ?? region;
}
