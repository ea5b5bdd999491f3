import { usePacks } from "../../api/packs.ts";
import { useState } from "react";
import type { ContactView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { ContactDialog, numberCheck } from "../../records/ContactDialog.tsx";
import { useContacts } from "../../app/records.ts";

/** Customers and suppliers: who they are for tax. */
export function ContactsPage() {
  const packs = usePacks();
  const { client } = useScope();
  const [search, setSearch] = useState("");
  const { data: contacts } = useContacts(search);
  const [editing, setEditing] = useState<ContactView | "new" | null>(null);
  const add = (
    <button type="button" className="action main" onClick={() => setEditing("new")}>
      Add contact
    </button>
  );
  return (
    <Sheet title="Contacts" actions={add}>
      {contacts?.length === 0 && search === "" ? (
        <EmptyState title="No contacts yet" action={add}>
          They are also created while a document is typed or a register is imported.
        </EmptyState>
      ) : (
        <>
          <input
            className="entry mb-2 max-w-xs"
            placeholder="Find by name or number"
            aria-label="Find by name or number"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <table className="sheet-table">
            <thead>
              <tr>
                <th>Contact</th>
                <th>Country</th>
                <th>Tax number</th>
                <th>Standing</th>
                <th>Usual codes</th>
                <th className="num">Documents</th>
              </tr>
            </thead>
            <tbody>
              {contacts?.map((contact) => (
                <tr key={contact.id}>
                  <td>
                    <button
                      type="button"
                      className="cursor-pointer font-semibold hover:text-primary"
                      onClick={() => setEditing(contact)}
                    >
                      {contact.name}
                    </button>
                  </td>
                  <td>{contact.country ?? "–"}</td>
                  <td className="font-mono text-[12.5px]">
                    {contact.taxNumber ?? "–"}
                    {contact.taxNumber &&
                      numberCheck(packs, contact.country ?? client?.country ?? "", contact.taxNumber)?.ok ===
                        false && <span className="ml-2 font-sans text-warning">check digits do not fit</span>}
                  </td>
                  <td>
                    <Standing contact={contact} />
                  </td>
                  <td>
                    {[contact.saleCode, contact.purchaseCode].filter(Boolean).map((code) => (
                      <span key={code} className="code-chip mr-1">
                        {code}
                      </span>
                    ))}
                  </td>
                  <td className="num">{contact.documents}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {editing && (
        <ContactDialog
          key={editing === "new" ? "new" : editing.id}
          contact={editing === "new" ? null : editing}
          name=""
          onClose={() => setEditing(null)}
          onDone={() => setEditing(null)}
        />
      )}
    </Sheet>
  );
}

/** What the contact is for each levy; before standings were asked only whether it is registered. */
function Standing({ contact }: { contact: ContactView }) {
  const known = Object.entries(contact.standing).map(
    ([levy, one]) => `${levy}: ${(typeof one === "string" ? one : one.value).replaceAll("-", " ")}`,
  );
  if (known.length > 0) return known.join(", ");
  if (contact.registered === null) return <span className="quiet">not known</span>;
  return contact.registered ? "registered" : "not registered";
}
