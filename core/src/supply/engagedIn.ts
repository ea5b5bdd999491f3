import type { CalendarDate } from "../calendar/date.ts";
import type { Packs } from "../model/packs.ts";
import type { Site } from "../model/party.ts";
import { optionsOn } from "../model/registration.ts";
import type { RegistrationSetup } from "../model/registration.ts";

/**
 * The regions a business is at home in: those of its places, and those its registrations say. Only where the law asks
 * for it, which is where a supply may be taxed where it comes from.
 * @returns by country
 */
export function engagedIn(
  places: readonly Pick<Site, "country" | "region">[],
  registrations: readonly RegistrationSetup[],
  today: CalendarDate,
  packs: Packs,
): ReadonlyMap<string, readonly string[]> {
  const asked = packs.all.filter(({ sourcing }) => sourcing !== undefined);
  return new Map(
    asked.map((pack) => {
      const own = places.flatMap(({ country, region }) =>
        country === pack.country && region ? [region] : [],
      );
      const said = registrations
        .filter((r) => r.pack === pack.id)
        .flatMap((r) => {
          const chosen = optionsOn(pack, r, today);
          return (pack.options ?? []).flatMap(({ id, values }) =>
            values.flatMap(({ value, engaged }) => (chosen[id] === value ? (engaged ?? []) : [])),
          );
        });
      return [pack.country, [...new Set([...own, ...said])]];
    }),
  );
}
