import { keys } from "../api/keys.ts";
import { queryOptions, useQuery } from "@tanstack/react-query";
import { api } from "../api/client.ts";
import { useScope } from "./scope.ts";

/** The return of the chosen period, without what its checks find. */
export function usePeriodReturn(wanted = true) {
  return useQuery(useAsked("form", wanted));
}

/** The same with its findings, which take longest in a long period. */
export function useCheckedReturn() {
  return useQuery(useAsked("checked", true));
}

function useAsked(what: "form" | "checked", wanted: boolean) {
  const { client, registration, period } = useScope();
  return queryOptions({
    queryKey: keys.of(client?.id, "return", registration?.id, period?.to, what),
    queryFn: ({ signal }) =>
      api.get(
        "/clients/:id/registrations/:rid/returns/:period",
        [client?.id, registration?.id, period?.to],
        {
          findings: String(what === "checked"),
        },
        signal,
      ),
    enabled: wanted && registration !== undefined && period !== undefined,
  });
}
