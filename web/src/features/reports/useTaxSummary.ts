import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import type { SummaryRow } from "@fiscalon/contract/reports";
import { api, withQuery } from "../../api/client.ts";

export type Filter = Record<string, string | number | undefined>;

/** What was counted, by levy, code, rate and side. */
export function useTaxSummary(clientId: number, filter: Filter) {
  return useQuery({
    queryKey: keys.of(clientId, "tax-summary", filter),
    queryFn: () => api.get<SummaryRow[]>(withQuery(`/clients/${clientId}/reports/tax/summary`, filter)),
    placeholderData: (previous) => previous,
  });
}
