import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { ClientView } from "@fiscalon/contract/views";
import { Packs } from "@fiscalon/core/model/packs";
import { ON_DEMAND } from "@fiscalon/core/packs/onDemand";
import { keys } from "./keys.ts";
import { useOwnLaw } from "./law.tsx";

const NONE = new Packs([]);

/**
 * The jurisdictions of a client's registrations and of its country, fetched with the first client that has them.
 * @returns undefined until they are here
 */
export function useClientPacks(client: ClientView | undefined): Packs | undefined {
  const withOwnLaw = useOwnLaw();
  const needed = ON_DEMAND.filter(
    ({ names, country }) =>
      country === client?.country ||
      client?.registrations.some(({ pack }) => names.includes(pack.toLowerCase())),
  );
  const { data: shipped } = useQuery({
    queryKey: keys.packs(needed.map(({ country }) => country)),
    queryFn: () => Promise.all(needed.map(({ load }) => load())),
    staleTime: Infinity,
    gcTime: Infinity,
    throwOnError: true,
    structuralSharing: false,
  });
  return useMemo(
    () => (client === undefined ? NONE : shipped && withOwnLaw(shipped)),
    [client, shipped, withOwnLaw],
  );
}
