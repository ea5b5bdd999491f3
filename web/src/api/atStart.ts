import { queryOptions } from "@tanstack/react-query";
import type { QueryClient } from "@tanstack/react-query";
import { api } from "./client.ts";
import { keys } from "./keys.ts";

/** What the practice found out about the law. */
export const lawChangesQuery = queryOptions({
  queryKey: keys.law,
  queryFn: ({ signal }) => api.get("/law", [], {}, signal),
  staleTime: Infinity,
});

export const ownJurisdictionsQuery = queryOptions({
  queryKey: keys.ownJurisdictions,
  queryFn: ({ signal }) => api.get("/jurisdictions/own", [], {}, signal),
  staleTime: Infinity,
});

export const clientQuery = (clientId: string | undefined) =>
  queryOptions({
    queryKey: keys.client(Number(clientId)),
    queryFn: ({ signal }) => api.get("/clients/:id", [clientId], {}, signal),
    enabled: clientId !== undefined,
    retry: false,
  });

/** Asks for what any screen waits for before the first one is drawn. */
export function askAtStart(queries: QueryClient, path: string): void {
  void queries.prefetchQuery(lawChangesQuery);
  void queries.prefetchQuery(ownJurisdictionsQuery);
  const client = /^\/c\/(\d+)\//.exec(path)?.[1];
  if (client !== undefined) void queries.prefetchQuery(clientQuery(client));
}
