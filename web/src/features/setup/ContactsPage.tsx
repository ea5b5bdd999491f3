import { useState } from "react";
import type { ContactView } from "@fiscalon/contract/views";
import { packOfCountry } from "@fiscalon/core/jurisdictions/packs";
import { useScope } from "../../app/scope.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { ContactDialog } from "./ContactDialog.tsx";
import { useContacts } from "./useSetup.ts";

/** Customers and suppliers: who they are for tax. */
export function ContactsPage() {
  const { client } = useScope();
  const [search, setSearch] = useState("");
  const { data: contacts } = useContacts(search);
  const [editing, setEditing] = useState<ContactView | "new" | null>(null);
  const pack = client ? packOfCountry(client.country) : undefined;
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
                <th>Registered</th>
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
                      pack &&
                      (contact.country === null || contact.country === pack.country) &&
                      !pack.checkNumber(contact.taxNumber).ok && (
                        <span className="ml-2 font-sans text-warning">check digits do not fit</span>
                      )}
                  </td>
                  <td>
                    {contact.registered === null ? (
                      <span className="quiet">not known</span>
                    ) : contact.registered ? (
                      "yes"
                    ) : (
                      "no"
                    )}
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
