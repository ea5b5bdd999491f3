import { usePacks } from "../api/packs.tsx";
import { useScope } from "./scope.ts";

/** Whether a jurisdiction of the client taxes goods piece by piece on their margin. */
export function useKeepsStockBook(): boolean {
  const packs = usePacks();
  const { client } = useScope();
  if (!client) return false;
  const registered = client.registrations.some(({ pack }) => packs.byId(pack).stockBook !== undefined);
  return registered || packs.ofCountry(client.country)?.stockBook !== undefined;
}
