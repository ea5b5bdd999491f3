import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useLocation, useParams } from "react-router";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { api } from "../../api/client.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { TYPED_KINDS } from "../../kit/kinds.ts";
import { ScreenBoundary } from "../../kit/ScreenBoundary.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { useSetup } from "../../app/useSetup.ts";
import { DocumentEditor } from "./DocumentEditor.tsx";
import { blankDraft, draftOf } from "./draft.ts";
import type { Draft } from "./draft.ts";
import { keptDraft, placeForCorrection, placeForNew, putAside } from "./draftStore.ts";
import { begunDraft } from "./draft.ts";
import type { BegunDocument } from "../../app/begunDocument.ts";
import type { DraftPlace } from "./draftStore.ts";
import { Waiting } from "../../kit/Waiting.tsx";

/** A new document, or one that is in the books. */
export function DocumentPage() {
  const { client } = useScope();
  const { kind, documentId } = useParams();
  const { state, key } = useLocation() as {
    state: { draft?: Draft; begun?: BegunDocument } | null;
    key: string;
  };
  const setup = useSetup();
  const wanted = TYPED_KINDS.find((one) => one === kind) ?? "sales-invoice";
  const place = useDraftPlace(client?.id, documentId === undefined ? wanted : Number(documentId), key);
  const [attempt, setAttempt] = useState(0);
  const { data: document, error } = useQuery({
    queryKey: keys.of(client?.id, "document", documentId),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/documents/:document", [client?.id, documentId], {}, signal),
    enabled: documentId !== undefined && client !== undefined,
  });
  if (error) {
    return (
      <Sheet title="Document">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  if (!client || !setup || place === "looking" || (documentId !== undefined && !document))
    return <Waiting what="the document" />;
  const keptUnder = place?.key ?? null;
  const kept = keptUnder === null ? null : keptDraft(keptUnder);
  const initial = document
    ? (kept ?? draftOf(document))
    : (state?.draft ?? (state?.begun ? begunDraft(wanted, state.begun) : (kept ?? blankDraft(wanted))));
  return (
    <ScreenBoundary
      key={`${document?.id ?? wanted} ${document?.state} ${key} ${attempt}`}
      title="This document cannot be shown"
      action={
        keptUnder === null || keptDraft(keptUnder) === null
          ? null
          : {
              name: "Put the draft aside and start anew",
              act: () => {
                putAside(keptUnder);
                setAttempt((now) => now + 1);
              },
            }
      }
    >
      <DocumentEditor document={document ?? null} initial={initial} setup={setup} keptUnder={keptUnder} />
    </ScreenBoundary>
  );
}

/** Where what is typed is kept: its own place for each tab, and one for each document that is corrected. */
function useDraftPlace(
  clientId: number | undefined,
  of: DocumentKind | number,
  key: string,
): DraftPlace | undefined | "looking" {
  const [place, setPlace] = useState<DraftPlace | undefined | "looking">("looking");
  useEffect(() => {
    if (clientId === undefined) return;
    let gone = false;
    let held: DraftPlace | undefined;
    const found = typeof of === "number" ? placeForCorrection(clientId, of) : placeForNew(clientId, of);
    void found.then((one) => {
      if (gone) return one?.release();
      held = one;
      setPlace(one);
    });
    return () => {
      gone = true;
      held?.release();
      setPlace("looking");
    };
  }, [clientId, of, key]);
  return place;
}
