import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { ItemView } from "@fiscalon/contract/views";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import type { DraftLine } from "./draft.ts";

/** So many of what fits are offered. */
const OFFERED = 100;
const NONE: readonly ItemView[] = [];

/** The items the lines of a document name, and those that fit what is typed into one of them. */
export function useLineItems(lines: readonly DraftLine[], search: string): readonly ItemView[] {
  const { client } = useScope();
  const refs = [...new Set(lines.flatMap(({ item }) => item || []))].sort();
  const { data: found = NONE } = useQuery({
    queryKey: keys.of(client?.id, "items", "found", search),
    queryFn: ({ signal }) => api.get("/clients/:id/items", [client?.id], { search, limit: OFFERED }, signal),
    enabled: client !== undefined,
    placeholderData: (previous) => previous,
    select: ({ rows }) => rows,
  });
  const { data: named = NONE } = useQuery({
    queryKey: keys.of(client?.id, "items", "named", refs),
    queryFn: ({ signal }) => api.ask("/clients/:id/items/named", [client?.id], { refs }, signal),
    enabled: client !== undefined && refs.length > 0,
    placeholderData: (previous) => previous,
  });
  return useMemo(
    () => [...new Map([...named, ...found].map((item) => [item.ref, item])).values()],
    [named, found],
  );
}
