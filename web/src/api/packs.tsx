import { keys } from "./keys.ts";
import { useQuery } from "@tanstack/react-query";
import { createContext, useContext, useMemo } from "react";
import type { ReactNode } from "react";
import { amendedPack } from "@fiscalon/core/jurisdictions/amendedPack";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { api } from "./client.ts";

const SHIPPED_ONLY = new Packs(SHIPPED);
const PacksContext = createContext<Packs>(SHIPPED_ONLY);

/** What the practice found out about the law. */
export function useLawChanges() {
  return useQuery({
    queryKey: keys.law,
    queryFn: () => api.get("/law", []),
    staleTime: Infinity,
  });
}

/** Hands the jurisdictions in, as soon as those of the practice and what it corrected are here. */
export function PacksProvider({ children }: { children: ReactNode }) {
  const { data: own, isPending } = useQuery({
    queryKey: keys.ownJurisdictions,
    queryFn: () => api.get("/jurisdictions/own", []),
    staleTime: Infinity,
  });
  const { data: law, isPending: lawPending } = useLawChanges();
  const packs = useMemo(() => {
    const changes = (law ?? []).map(({ change }) => change);
    const made = (own ?? []).map(packOf);
    if (made.length === 0 && changes.length === 0) return SHIPPED_ONLY;
    return new Packs([...SHIPPED, ...made].map((pack) => amendedPack(pack, changes)));
  }, [own, law]);
  if (isPending || lawPending) return null;
  return <PacksContext value={packs}>{children}</PacksContext>;
}

export function usePacks(): Packs {
  return useContext(PacksContext);
}
