import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { useScope } from "./scope.ts";

/** The client's set-up, as the server has it. */
export function usePlainSetup() {
  const { client } = useScope();
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "setup"),
    queryFn: ({ signal }) => api.get("/clients/:id/setup", [client?.id], {}, signal),
    enabled: client !== undefined,
    throwOnError: true,
  });
  return data;
}

/** Contacts that fit what is typed, the first of them by name. */
export function useContacts(search = "") {
  const { client } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "contacts", "found", search),
    queryFn: ({ signal }) => api.get("/clients/:id/contacts", [client?.id], { search, limit: 100 }, signal),
    enabled: client !== undefined,
    placeholderData: (previous) => previous,
    select: ({ rows }) => rows,
  });
}
