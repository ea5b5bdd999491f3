import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client.ts";
import { useScope } from "./scope.ts";

/** The return of the chosen period. */
export function usePeriodReturn(wanted = true) {
  const { client, registration, period } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "return", registration?.id, period?.to),
    queryFn: () =>
      api.get("/clients/:id/registrations/:rid/returns/:period", [client?.id, registration?.id, period?.to]),
    enabled: wanted && registration !== undefined && period !== undefined,
  });
}
