import { useQuery } from "@tanstack/react-query";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { OriginalView } from "@fiscalon/contract/views";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import type { Draft } from "./draft.ts";

/** The document a credit note corrects, where it is in the books. */
export function useOriginal(clientId: number, draft: Draft): OriginalView | null {
  const { kind } = draft;
  const number = draft.corrects.trim();
  const contact = draft.contact?.id ?? 0;
  const { data } = useQuery({
    queryKey: keys.of(clientId, "original", kind, number, contact),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/documents/original", [clientId], { kind, number, contact }, signal),
    enabled: kindOf(kind).sign < 0 && number !== "",
  });
  return kindOf(kind).sign < 0 && number !== "" ? (data?.original ?? null) : null;
}
