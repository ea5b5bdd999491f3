import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { setupFromPlain } from "@fiscalon/core/facts/plainSetup";

import { usePacks } from "../api/packs.tsx";
import { useScope } from "./scope.ts";
import { api } from "../api/client.ts";

/** The client's set-up, as the server has it and as core wants it. */
export function useSetup() {
  const packs = usePacks();
  const { client } = useScope();
  const { data: plain } = useQuery({
    queryKey: keys.of(client?.id, "setup"),
    queryFn: () => api.get("/clients/:id/setup", [client?.id]),
    enabled: client !== undefined,
    throwOnError: true,
  });
  return useMemo(() => (plain ? { plain, effect: setupFromPlain(plain, packs) } : undefined), [plain, packs]);
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
