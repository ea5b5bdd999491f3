import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { Packs } from "@fiscalon/core/model/packs";
import type { ContactPage, ContactView } from "@fiscalon/contract/views";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import { ContactDialog, numberCheck } from "../../records/ContactDialog.tsx";

/** Customers and suppliers: who they are for tax. */
export function ContactsPage() {
  const packs = usePacks();
  const { client } = useScope();
  const [search, setSearch] = useState("");
  const [editing, setEditing] = useState<ContactView | "new" | null>(null);
  const { data: whole } = useQuery({
    queryKey: keys.of(client?.id, "contacts", "whole"),
    queryFn: ({ signal }) => api.get("/clients/:id/contacts", [client?.id], { limit: 1 }, signal),
    enabled: client !== undefined,
  });
  const home = client?.country ?? "";
  const columns = useMemo(() => columnsOf(packs, home, setEditing), [packs, home]);
  const add = (
    <button type="button" className="action main" onClick={() => setEditing("new")}>
      Add contact
    </button>
  );
  return (
    <Sheet title="Contacts" actions={add}>
      {whole?.total === 0 ? (
        <EmptyState title="No contacts yet" action={add}>
          They are also created while a document is typed or a register is imported.
        </EmptyState>
      ) : (
        <>
          <div className="mb-2">
            <FindInput
              label="Find by name or number"
              placeholder="Find by name or number"
              value={search}
              onChange={setSearch}
            />
          </div>
          <DataTable<ContactView, ContactPage>
            name="contacts"
            label="Contacts"
            columns={columns}
            rowId={({ id }) => id}
            queryKey={keys.of(client?.id, "contacts", "list", search)}
            enabled={client !== undefined}
            fetchPage={(order, signal) =>
              api.get("/clients/:id/contacts", [client?.id], { search, ...order }, signal)
            }
            onOpen={setEditing}
            empty="Nobody is called so. Try fewer letters, or add the contact."
          />
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

function columnsOf(packs: Packs, home: string, edit: (contact: ContactView) => void): Column<ContactView>[] {
  return [
    {
      id: "name",
      head: "Contact",
      width: 190,
      grow: 1,
      sorts: true,
      always: true,
      cell: (contact) => (
        <button
          type="button"
          className="block w-full cursor-pointer truncate text-left font-semibold hover:text-primary"
          onClick={() => edit(contact)}
        >
          {contact.name}
        </button>
      ),
    },
    { id: "country", head: "Country", width: 80, sorts: true, cell: ({ country }) => country ?? "–" },
    {
      id: "taxNumber",
      head: "Tax number",
      width: 170,
      grow: 0.5,
      sorts: true,
      cell: ({ taxNumber, country }) => (
        <>
          <span className="font-mono text-[12.5px]">{taxNumber ?? "–"}</span>
          {taxNumber && numberCheck(packs, country ?? home, taxNumber)?.ok === false && (
            <span className="ml-2 text-warning">check digits do not fit</span>
          )}
        </>
      ),
    },
    {
      id: "standing",
      head: "Standing",
      width: 150,
      grow: 0.7,
      cell: (contact) => <Standing contact={contact} />,
    },
    {
      id: "codes",
      head: "Usual codes",
      width: 120,
      cell: ({ saleCode, purchaseCode }) =>
        [saleCode, purchaseCode].filter(Boolean).map((code) => (
          <span key={code} className="code-chip mr-1">
            {code}
          </span>
        )),
    },
    {
      id: "documents",
      head: "Documents",
      width: 92,
      amount: true,
      cell: ({ documents }) => <span className="font-mono">{documents}</span>,
    },
  ];
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
