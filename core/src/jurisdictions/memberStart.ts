import { blankJurisdiction } from "./blankJurisdiction.ts";
import type { OwnJurisdiction } from "./ownJurisdiction.ts";
import { UNION_MEMBERS } from "../packs/eu/members.ts";
import { STANDARD_RATES } from "../packs/eu/standardRates.ts";

/** Members with a currency of their own in 2026. */
const OTHER_CURRENCIES: Readonly<Record<string, string>> = {
  CZ: "CZK",
  DK: "DKK",
  HU: "HUF",
  PL: "PLN",
  RO: "RON",
  SE: "SEK",
};

/**
 * A start for the jurisdiction of a member of the European Union without a pack: its standard rate by date, one levy
 * VAT, and a plain form of four boxes. Reduced rates, the official form and its calendar are to be added.
 * @param country ISO 3166 code of a member
 */
export function memberStart(country: string): OwnJurisdiction {
  const blank = blankJurisdiction("VAT");
  return {
    ...blank,
    id: `own-${country.toLowerCase()}`,
    country,
    name: UNION_MEMBERS.get(country) ?? country,
    currency: OTHER_CURRENCIES[country] ?? "EUR",
    numberName: "VAT number",
    schedules: { "own.STD": [...(STANDARD_RATES[country] ?? [])] },
    holidays: { country },
  };
}
