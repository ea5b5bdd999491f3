import { packOfCountry } from "../jurisdictions/packs.ts";

/**
 * The region of a country as its pack writes it: an alias, another case or a full name are recognised; what is not
 * known stays as typed. Where no region is given, the tax number may tell it (Indian numbers begin with the state).
 * @returns the empty string where nothing tells the region
 */
export function regionOf(country: string, region: string | null, taxNumber: string | null): string {
  const pack = packOfCountry(country);
  const text = region?.trim() ?? "";
  if (text === "") return taxNumber ? (pack?.regionOfNumber?.(taxNumber) ?? "") : "";
  const wanted = text.toUpperCase();
  const known = pack?.regions?.find(
    (one) => one.code === wanted || one.name.toUpperCase() === wanted || one.aliases?.includes(wanted),
  );
  return known?.code ?? wanted;
}

/** How boxes name a region: its tag in the pack, or the region itself; empty where the region is not known. */
export function regionTag(country: string, region: string): string {
  if (region === "") return "";
  return packOfCountry(country)?.regions?.find((one) => one.code === region)?.tag ?? region;
}
