import { keys } from "./keys.ts";
import { useQuery } from "@tanstack/react-query";
import { createContext, useContext, useMemo } from "react";
import type { ReactNode } from "react";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { api } from "./client.ts";

const SHIPPED_ONLY = new Packs(SHIPPED);
const PacksContext = createContext<Packs>(SHIPPED_ONLY);

/** Hands the jurisdictions in: those that ship, and the practice's as soon as they are here. */
export function PacksProvider({ children }: { children: ReactNode }) {
  const { data, isPending } = useQuery({
    queryKey: keys.ownJurisdictions,
    queryFn: () => api.get("/jurisdictions/own", []),
    staleTime: Infinity,
  });
  const packs = useMemo(
    () => (data && data.length > 0 ? new Packs([...SHIPPED, ...data.map(packOf)]) : SHIPPED_ONLY),
    [data],
  );
  if (isPending) return null;
  return <PacksContext value={packs}>{children}</PacksContext>;
}

export function usePacks(): Packs {
  return useContext(PacksContext);
}
