import { useNavigate } from "react-router";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { copyOf, creditNoteOf } from "./draft.ts";

/** What else can be done with a posted document. */
export function DocumentMenu({
  document,
  readOnly,
  onKeep,
  onVoid,
}: {
  document: DocumentView;
  readOnly: boolean;
  onKeep: () => void;
  onVoid: () => void;
}) {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const { paper } = kindOf(document.input.kind);
  const credit = document.state === "posted" ? creditNoteOf(document) : null;
  const file = (what: string) => `/api/clients/${client?.id}/documents/${document.id}/${what}`;
  const begin = (draft: ReturnType<typeof copyOf>) =>
    void navigate(path(`books/documents/new/${draft.kind}`), { state: { draft } });
  const actions: [string, string, (() => void) | null][] = [
    ["copy", "Copy it to a new one", () => begin(copyOf(document))],
    ["template", "Make a template of it, also a recurring one", onKeep],
    ["credit", "Credit it", credit ? () => begin(credit) : null],
    ["pdf", "Save as PDF", paper !== null ? () => window.open(file("pdf")) : null],
    ["e-invoice", "Save as e-invoice (UBL)", paper !== null ? () => window.open(file("e-invoice")) : null],
    ["void", "Take it out of the books", readOnly ? null : onVoid],
  ];
  return (
    <select
      className="action w-[92px] cursor-pointer"
      aria-label="More"
      value=""
      onChange={(event) => actions.find(([id]) => id === event.target.value)?.[2]?.()}
    >
      <option value="" disabled>
        More …
      </option>
      {actions
        .filter(([, , act]) => act !== null)
        .map(([id, name]) => (
          <option key={id} value={id} className="bg-base-100 text-base-content">
            {name}
          </option>
        ))}
    </select>
  );
}
