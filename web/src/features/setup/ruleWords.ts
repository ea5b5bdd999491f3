import type { Packs } from "@fiscalon/core/model/packs";

/** A place of a rule in words. */
export function placeWords(packs: Packs, place: string): string {
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
  const pack = packs.ofCountry(place.slice(0, 2));
  const region = place.slice(3);
  if (region === "") return pack?.name ?? place;
  return pack?.regions?.find((one) => one.code === region)?.name ?? place;
}

/** The places a rule can name for the countries of a client. */
export function placeChoices(packs: Packs, countries: readonly string[]): { value: string; name: string }[] {
  const general = ["any", "home", "abroad", "union", "outside-union"];
  const theirs = [...new Set(countries)].flatMap((country) => [
    country,
    ...(packs.ofCountry(country)?.regions ?? []).map(({ code }) => `${country}-${code}`),
  ]);
  return [...general, ...theirs].map((value) => ({ value, name: placeWords(packs, value) }));
}
