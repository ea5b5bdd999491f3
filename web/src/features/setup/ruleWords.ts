import { packOfCountry } from "@fiscalon/core/jurisdictions/packs";

/** A place of a rule in words. */
export function placeWords(place: string): string {
  switch (place) {
    case "any":
      return "anywhere";
    case "home":
      return "at home";
    case "union":
      return "another EU member";
    case "abroad":
      return "abroad";
    case "outside-union":
      return "outside the EU";
  }
  const pack = packOfCountry(place.slice(0, 2));
  const region = place.slice(3);
  if (region === "") return pack?.name ?? place;
  return pack?.regions?.find((one) => one.code === region)?.name ?? place;
}

/** The places a rule can name for the countries of a client. */
export function placeChoices(countries: readonly string[]): { value: string; name: string }[] {
  const general = ["any", "home", "abroad", "union", "outside-union"];
  const own = [...new Set(countries)].flatMap((country) => [
    country,
    ...(packOfCountry(country)?.regions ?? []).map(({ code }) => `${country}-${code}`),
  ]);
  return [...general, ...own].map((value) => ({ value, name: placeWords(value) }));
}
