import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { usePeriodReturn } from "../../app/usePeriodReturn.ts";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";

/** The chosen period's return, and the ways to change it. */
export function useReturn() {
  const { client, period, registrationPath } = useScope();
  const queries = useQueryClient();
  const base = `${registrationPath}/returns/${period?.to}`;
  const query = usePeriodReturn();
  const act = useMutation({
    mutationFn: ({ path, body, remove = false }: { path: string; body?: unknown; remove?: boolean }) => {
      const full = path.startsWith("/") ? path : `${base}/${path}`;
      return remove ? api.delete<unknown>(full) : api.post<unknown>(full, body);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  return { view: query.data, error: query.error, act, base };
}
