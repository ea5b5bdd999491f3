import { useQuery } from "@tanstack/react-query";
import { createContext, useContext, useMemo } from "react";
import type { ReactNode } from "react";
import { amendedPack } from "@fiscalon/core/jurisdictions/amendedPack";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { Packs } from "@fiscalon/core/model/packs";
import { lawChangesQuery, ownJurisdictionsQuery } from "./atStart.ts";

/** Puts packs that ship together with those of the practice, as the practice corrected them. */
export type WithOwnLaw = (shipped: readonly JurisdictionPack[]) => Packs;

const asShipped: WithOwnLaw = (shipped) => new Packs(shipped);
const LawContext = createContext<WithOwnLaw>(asShipped);

/** Hands in what the practice adds to the law that ships, as soon as it is here. */
export function LawProvider({ children }: { children: ReactNode }) {
  const { data: own, isPending } = useQuery(ownJurisdictionsQuery);
  const { data: law, isPending: lawPending } = useQuery(lawChangesQuery);
  const withOwnLaw = useMemo<WithOwnLaw>(() => {
    const changes = (law ?? []).map(({ change }) => change);
    const made = (own ?? []).map(packOf);
    return (shipped) => new Packs([...shipped, ...made].map((pack) => amendedPack(pack, changes)));
  }, [own, law]);
  if (isPending || lawPending) return null;
  return <LawContext value={withOwnLaw}>{children}</LawContext>;
}

export function useOwnLaw(): WithOwnLaw {
  return useContext(LawContext);
}
