import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { ContactView, ItemView } from "@fiscalon/contract/views";
import { AccountDialog } from "../../records/AccountDialog.tsx";
import { CodeEditor } from "../../records/CodeEditor.tsx";
import { ContactDialog } from "../../records/ContactDialog.tsx";
import { ItemDialog } from "../../records/ItemDialog.tsx";
import type { DraftLine } from "./draft.ts";
import type { Creation } from "./LineGrid.tsx";

/** What is made, or opened, without leaving the document. */
export type Creating = Creation | { what: "contact"; text: string } | { what: "open-contact" };

/** Contacts, accounts, codes and items made from within a document; what is made goes where it was missing. */
export function CreateDialogs({
  creating,
  contact,
  plain,
  onContact,
  onLine,
  onItem,
  onClose,
}: {
  creating: Creating | null;
  contact: ContactView | null;
  plain: PlainSetup;
  onContact: (contact: ContactView) => void;
  onLine: (index: number, change: Partial<DraftLine>) => void;
  onItem: (index: number, item: ItemView) => void;
  onClose: () => void;
}) {
  if (creating === null) return null;
  const done = (take: () => void) => {
    take();
    onClose();
  };
  switch (creating.what) {
    case "contact":
    case "open-contact":
      return (
        <ContactDialog
          contact={creating.what === "contact" ? null : contact}
          name={creating.what === "contact" ? creating.text : ""}
          onClose={onClose}
          onDone={(made) => done(() => onContact(made))}
        />
      );
    case "account": {
      const isNumber = /^\d+$/.test(creating.text);
      return (
        <AccountDialog
          code={isNumber ? creating.text : ""}
          name={isNumber ? "" : creating.text}
          onClose={onClose}
          onDone={(account) => done(() => onLine(creating.line, { account }))}
        />
      );
    }
    case "code":
      return (
        <CodeEditor
          code={null}
          named={creating.text}
          setup={plain}
          onClose={onClose}
          onDone={(code) =>
            done(() => onLine(creating.line, { code, codeTyped: true, codeReason: "", asks: null }))
          }
        />
      );
    case "item":
      return (
        <ItemDialog
          name={creating.text}
          onClose={onClose}
          onDone={(item) => done(() => onItem(creating.line, item))}
        />
      );
  }
}
