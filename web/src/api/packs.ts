import type { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { useOwnLaw } from "./law.tsx";
import type { WithOwnLaw } from "./law.tsx";

/** Put together once for each state of the practice's own law. */
const ALL = new WeakMap<WithOwnLaw, Packs>();

/** All jurisdictions. The frame knows those of its client by its scope, so that it comes without the others. */
export function usePacks(): Packs {
  const withOwnLaw = useOwnLaw();
  const known = ALL.get(withOwnLaw);
  if (known) return known;
  const all = withOwnLaw(SHIPPED);
  ALL.set(withOwnLaw, all);
  return all;
}
