import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { ItemPage, ItemView } from "@fiscalon/contract/views";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import { ItemDialog } from "../../records/ItemDialog.tsx";

/** What is bought and sold again and again. */
export function ItemsPage() {
  const { client } = useScope();
  const [search, setSearch] = useState("");
  const [editing, setEditing] = useState<ItemView | "new" | null>(null);
  const { data: whole } = useQuery({
    queryKey: keys.of(client?.id, "items", "whole"),
    queryFn: ({ signal }) => api.get("/clients/:id/items", [client?.id], { limit: 1 }, signal),
    enabled: client !== undefined,
  });
  const columns = useMemo(() => columnsOf(setEditing), []);
  const close = () => setEditing(null);
  const add = (
    <button type="button" className="action main" onClick={() => setEditing("new")}>
      Add item
    </button>
  );
  return (
    <Sheet title="Items" actions={add}>
      {whole?.total === 0 ? (
        <EmptyState title="No items yet" action={add}>
          An item brings its text, price, account and tax code onto a line. Lines can be typed without one.
        </EmptyState>
      ) : (
        <>
          <div className="mb-2">
            <FindInput
              label="Find items"
              placeholder="Find by name or number"
              value={search}
              onChange={setSearch}
            />
          </div>
          <DataTable<ItemView, ItemPage>
            name="items"
            label="Items"
            columns={columns}
            rowId={({ id }) => id}
            queryKey={keys.of(client?.id, "items", "list", search)}
            enabled={client !== undefined}
            fetchPage={(order, signal) =>
              api.get("/clients/:id/items", [client?.id], { search, ...order }, signal)
            }
            onOpen={setEditing}
            empty="Nothing is called so. Try fewer letters, or add the item."
          />
        </>
      )}
      {editing && (
        <ItemDialog item={editing === "new" ? null : editing} name="" onClose={close} onDone={close} />
      )}
    </Sheet>
  );
}

function columnsOf(edit: (item: ItemView) => void): Column<ItemView>[] {
  return [
    {
      id: "name",
      head: "Item",
      width: 190,
      grow: 1,
      sorts: true,
      always: true,
      cell: (item) => (
        <button
          type="button"
          className="block w-full cursor-pointer truncate text-left font-semibold hover:text-primary"
          onClick={() => edit(item)}
        >
          {item.name}
        </button>
      ),
    },
    { id: "supply", head: "Supply", width: 84, sorts: true, cell: ({ supply }) => supply ?? "–" },
    { id: "taxClass", head: "Tax class", width: 120, sorts: true, cell: ({ taxClass }) => taxClass ?? "–" },
    {
      id: "statisticalCode",
      head: "Statistical code",
      width: 124,
      sorts: true,
      cell: ({ statisticalCode }) => (
        <span className="font-mono text-[12.5px]">{statisticalCode || "–"}</span>
      ),
    },
    {
      id: "unitPrice",
      head: "Unit price",
      width: 96,
      amount: true,
      sorts: true,
      cell: ({ unitPrice }) => <span className="font-mono">{unitPrice ?? "–"}</span>,
    },
    {
      id: "sold",
      head: "Sold with",
      width: 130,
      cell: ({ saleCode, saleAccount }) => [saleCode, saleAccount].filter(Boolean).join(" · ") || "–",
    },
    {
      id: "bought",
      head: "Bought with",
      width: 130,
      cell: ({ purchaseCode, purchaseAccount }) =>
        [purchaseCode, purchaseAccount].filter(Boolean).join(" · ") || "–",
    },
  ];
}
