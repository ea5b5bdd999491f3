import { useQuery } from "@tanstack/react-query";
import { useLocation, useParams } from "react-router";
import type { DocumentKind } from "@fiscalon/core/tax/documentInput";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../kit/api.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { TYPED_KINDS } from "../../kit/kinds.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { useSetup } from "../setup/useSetup.ts";
import { DocumentEditor } from "./DocumentEditor.tsx";
import { blankDraft, draftOf, keptDraft } from "./draft.ts";
import type { Draft } from "./draft.ts";

/** A new document, or one that is in the books. */
export function DocumentPage() {
  const { client, registration } = useScope();
  const { kind, documentId } = useParams();
  const { state, key } = useLocation() as { state: { draft?: Draft } | null; key: string };
  const setup = useSetup();
  const levy = registration?.levies[0] ?? "VAT";
  const { data: document, error } = useQuery({
    queryKey: ["client", client?.id, "document", documentId],
    queryFn: () => api.get<DocumentView>(`/clients/${client?.id}/documents/${documentId}`),
    enabled: documentId !== undefined && client !== undefined,
  });
  if (error) {
    return (
      <Sheet title="Document">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  if (!client || !setup) return null;
  if (documentId !== undefined) {
    if (!document) return null;
    return (
      <DocumentEditor
        key={`${document.id} ${document.state}`}
        document={document}
        initial={draftOf(document, levy)}
        setup={setup}
        levy={levy}
      />
    );
  }
  const wanted = TYPED_KINDS.find((one) => one === kind) ?? ("sales-invoice" satisfies DocumentKind);
  const initial = state?.draft ?? keptDraft(client.id, wanted) ?? blankDraft(wanted);
  return (
    <DocumentEditor key={`${wanted} ${key}`} document={null} initial={initial} setup={setup} levy={levy} />
  );
}
