import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Decision } from "@fiscalon/contract/statements";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { useJob } from "../../../api/useJob.ts";

const ONE = "/clients/:id/statements/:statement";

/** A statement, matched anew whenever the books or the decisions changed, and what can be done about its lines. */
export function useStatement(clientId: number | undefined, id: number) {
  const queries = useQueryClient();
  const parts: [number | undefined, number] = [clientId, id];
  const refresh = () => queries.invalidateQueries({ queryKey: keys.client(clientId) });
  const query = useQuery({
    queryKey: keys.of(clientId, "statements", "one", id),
    queryFn: ({ signal }) => api.get(ONE, parts, {}, signal),
    enabled: clientId !== undefined,
  });
  const job = useJob(() => void refresh());
  const match = useMutation({
    mutationFn: () => api.post(`${ONE}/match`, parts),
    onSuccess: async ({ job: started }) => {
      if (started) job.follow(started);
      else await refresh();
    },
  });
  const { stale = false } = query.data ?? {};
  const { mutate, isPending, isError } = match;
  const busy = isPending || job.running;
  useEffect(() => {
    if (stale && !busy && !isError) mutate();
  }, [stale, busy, isError, mutate]);
  const decide = useMutation({
    mutationFn: (body: { lines: number[]; decision: Decision; reason: string }) =>
      api.post(`${ONE}/decisions`, parts, body),
    onSuccess: refresh,
  });
  const undo = useMutation({
    mutationFn: (lines: number[]) => api.post(`${ONE}/decisions/undo`, parts, { lines }),
    onSuccess: refresh,
  });
  const together = useMutation({
    mutationFn: () => api.post(`${ONE}/decisions/together`, parts),
    onSuccess: refresh,
  });
  const accept = useMutation({ mutationFn: () => api.post(`${ONE}/accept`, parts), onSuccess: refresh });
  const release = useMutation({ mutationFn: () => api.post(`${ONE}/release`, parts), onSuccess: refresh });
  const error =
    query.error ??
    match.error ??
    decide.error ??
    undo.error ??
    together.error ??
    accept.error ??
    release.error;
  return { view: query.data, busy, job, error, decide, undo, together, accept, release, refresh };
}
