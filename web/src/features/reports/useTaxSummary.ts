import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client.ts";

export type Filter = Record<string, string | number | undefined>;

/** What was counted, by levy, code, rate and side. */
export function useTaxSummary(clientId: number, filter: Filter) {
  return useQuery({
    queryKey: keys.of(clientId, "tax-summary", filter),
    queryFn: ({ signal }) => api.get("/clients/:id/reports/tax/summary", [clientId], filter, signal),
    placeholderData: (previous) => previous,
  });
}
