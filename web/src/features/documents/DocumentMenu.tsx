import { ChevronDown } from "lucide-react";
import { useNavigate } from "react-router";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { Menu, MenuItem } from "../../kit/Menu.tsx";
import { copyOf, creditNoteOf } from "./draft.ts";

/** What else can be done with a posted document. */
export function DocumentMenu({
  document,
  readOnly,
  onTemplate,
  onVoid,
}: {
  document: DocumentView;
  readOnly: boolean;
  onTemplate: () => void;
  onVoid: () => void;
}) {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const { paper } = kindOf(document.input.kind);
  const credit = document.state === "posted" ? creditNoteOf(document) : null;
  const file = (what: string) => `/api/clients/${client?.id}/documents/${document.id}/${what}`;
  const begin = (draft: ReturnType<typeof copyOf>) =>
    void navigate(path(`books/documents/new/${draft.kind}`), { state: { draft } });
  const actions: [string, (() => void) | null][] = [
    ["Copy it to a new one", () => begin(copyOf(document))],
    ["Make a template of it, also a recurring one", onTemplate],
    ["Credit it", credit ? () => begin(credit) : null],
    ["Save as PDF", paper !== null ? () => window.open(file("pdf")) : null],
    ["Save as e-invoice (UBL)", paper !== null ? () => window.open(file("e-invoice")) : null],
    ["Take it out of the books", readOnly ? null : onVoid],
  ];
  return (
    <Menu
      className="action"
      trigger={
        <>
          More <ChevronDown size={14} aria-hidden />
        </>
      }
    >
      {actions.map(
        ([name, act]) =>
          act && (
            <MenuItem key={name} onSelect={act}>
              {name}
            </MenuItem>
          ),
      )}
    </Menu>
  );
}
