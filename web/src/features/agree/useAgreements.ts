import { queryOptions } from "@tanstack/react-query";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";

export const AGREEMENTS = "/clients/:id/registrations/:rid/agreements/:period";

/** Every agreement of the chosen period. */
export function useAgreements() {
  const { client, registration, period } = useScope();
  return queryOptions({
    queryKey: keys.of(client?.id, "control", "all", registration?.id, period?.to),
    queryFn: ({ signal }) => api.get(AGREEMENTS, [client?.id, registration?.id, period?.to], {}, signal),
    enabled: registration !== undefined && period !== undefined,
    // Worked out from everything of the period: asked again after a change, not on every sheet of the station.
    staleTime: 60_000,
  });
}
