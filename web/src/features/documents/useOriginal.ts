import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import { api } from "../../api/client.ts";
import type { Draft } from "./draft.ts";

/** The document a credit note corrects, where it is in the books: its tax point decides the rates, its gross the boxes. */
export function useOriginal(clientId: number, draft: Draft): { date: string; gross: number } | null {
  const { sign } = kindOf(draft.kind);
  const number = draft.corrects.trim();
  const { data } = useQuery({
    queryKey: keys.of(clientId, "original", number),
    queryFn: () => api.get("/clients/:id/documents", [clientId], { search: number, limit: 20 }),
    enabled: sign < 0 && number !== "",
  });
  return useMemo(() => {
    const row = data?.rows.find(
      (one) => one.number === number && one.state === "posted" && kindOf(one.kind).creditedBy === draft.kind,
    );
    return row && sign < 0 ? { date: row.taxPoint, gross: row.gross } : null;
  }, [data, number, draft.kind, sign]);
}
