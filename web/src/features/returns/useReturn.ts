import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReturnView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";

/** The chosen period's return, and the ways to change it. */
export function useReturn() {
  const { client, registration, period, registrationPath } = useScope();
  const queries = useQueryClient();
  const base = `${registrationPath}/returns/${period?.to}`;
  const query = useQuery({
    queryKey: ["client", client?.id, "return", registration?.id, period?.to],
    queryFn: () => api.get<ReturnView>(base),
    enabled: registration !== undefined && period !== undefined,
  });
  const act = useMutation({
    mutationFn: ({ path, body, remove = false }: { path: string; body?: unknown; remove?: boolean }) => {
      const full = path.startsWith("/") ? path : `${base}/${path}`;
      return remove ? api.delete<unknown>(full) : api.post<unknown>(full, body);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["client", client?.id] }),
  });
  return { view: query.data, error: query.error, act, base };
}
