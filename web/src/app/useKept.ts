import { schemesOf, takingsCodesOf } from "@fiscalon/core/model/scheme";
import { useScope } from "./scope.ts";

/** Whether a jurisdiction of the client taxes goods piece by piece on their margin. */
export function useKeepsStockBook(): boolean {
  const { client, packs } = useScope();
  if (!client) return false;
  const registered = client.registrations.some(({ pack }) => packs.byId(pack).stockBook !== undefined);
  return registered || packs.ofCountry(client.country)?.stockBook !== undefined;
}

/** Whether a registration of the client collects a tax from customers on what they pay, now or at any time. */
export function useCollects(): boolean {
  const { client, packs } = useScope();
  return (client?.registrations ?? []).some((registration) => {
    const rule = packs.byId(registration.pack).collection;
    if (!rule) return false;
    const ways = [registration.options, ...registration.changes.map(({ options }) => options ?? {})];
    return ways.some((chosen) => (chosen[rule.option] ?? "no") !== "no");
  });
}

/** Whether a registration of the client is on a scheme of shops, now or at any time. */
export function useSells(): boolean {
  const { client, packs } = useScope();
  return (client?.registrations ?? []).some(({ pack, schemes }) =>
    schemesOf(packs.byId(pack)).some(
      ({ id, rule }) => takingsCodesOf(rule).length > 0 && schemes.some(({ scheme }) => scheme === id),
    ),
  );
}
