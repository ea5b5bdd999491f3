import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { useScope } from "./scope.ts";

/** The client's set-up, as the server has it. */
export function usePlainSetup() {
  const { client } = useScope();
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "setup"),
    queryFn: () => api.get("/clients/:id/setup", [client?.id]),
    enabled: client !== undefined,
    throwOnError: true,
  });
  return data;
}

export function useContacts(search = "", limit = 500) {
  const { client } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "contacts", search, limit),
    queryFn: () => api.get("/clients/:id/contacts", [client?.id], { search, limit }),
    enabled: client !== undefined,
    placeholderData: (previous) => previous,
  });
}

export function useItems() {
  const { client } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "items"),
    queryFn: () => api.get("/clients/:id/items", [client?.id]),
    enabled: client !== undefined,
  });
}
