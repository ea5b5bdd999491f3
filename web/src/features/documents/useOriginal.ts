import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { DocumentPage } from "@fiscalon/contract/views";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import { api, withQuery } from "../../kit/api.ts";
import type { Draft } from "./draft.ts";

/** The document a credit note corrects, where it is in the books: its tax point decides the rates, its gross the boxes. */
export function useOriginal(clientId: number, draft: Draft): { date: string; gross: number } | null {
  const { direction, sign } = DOCUMENT_KINDS[draft.kind];
  const number = draft.corrects.trim();
  const { data } = useQuery({
    queryKey: ["client", clientId, "original", number],
    queryFn: () =>
      api.get<DocumentPage>(withQuery(`/clients/${clientId}/documents`, { search: number, limit: 20 })),
    enabled: sign < 0 && number !== "",
  });
  return useMemo(() => {
    const row = data?.rows.find(
      (one) =>
        one.number === number &&
        one.state === "posted" &&
        DOCUMENT_KINDS[one.kind].direction === direction &&
        DOCUMENT_KINDS[one.kind].sign > 0,
    );
    return row && sign < 0 ? { date: row.taxPoint, gross: row.gross } : null;
  }, [data, number, direction, sign]);
}
