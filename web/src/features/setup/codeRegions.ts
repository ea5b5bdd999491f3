import type { SupplyRule } from "@fiscalon/core/model/supplyRule";

/**
 * Codes that only supplies from or to certain regions lead to, none of them ours: whoever is not there and sells nothing
 * there never needs them.
 * @param ours regions as rules write them: the country, a dash, the region
 */
export function codesElsewhere(
  rules: readonly Pick<SupplyRule, "code" | "from" | "to">[],
  ours: ReadonlySet<string>,
): ReadonlySet<string> {
  const needed = new Set<string>();
  for (const { code, from, to } of rules) {
    const regions = [from, to].filter((place) => place.includes("-"));
    const isOurs = regions.every((region) => region === "outside-union" || ours.has(region));
    if (isOurs) needed.add(code);
  }
  return new Set(rules.map(({ code }) => code).filter((code) => code !== "" && !needed.has(code)));
}
