import countries from "i18n-iso-countries";
import english from "i18n-iso-countries/langs/en.json";

countries.registerLocale(english);

/** The names of the countries by their two letters (ISO 3166). */
export const COUNTRY_NAMES: Readonly<Record<string, string>> = countries.getNames("en", { select: "alias" });

const CURRENCIES = new Intl.DisplayNames(["en-GB"], { type: "currency" });

/** What a currency is called, by its three letters (ISO 4217). */
export function currencyName(code: string): string {
  return CURRENCIES.of(code) ?? code;
}
