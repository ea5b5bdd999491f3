import { useState } from "react";
import type { ItemView } from "@fiscalon/contract/views";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { ItemDialog } from "../../records/ItemDialog.tsx";
import { useItems } from "../../app/records.ts";

/** What is bought and sold again and again. */
export function ItemsPage() {
  const { data: items } = useItems();
  const [editing, setEditing] = useState<ItemView | "new" | null>(null);
  const close = () => setEditing(null);
  const add = (
    <button type="button" className="action main" onClick={() => setEditing("new")}>
      Add item
    </button>
  );
  return (
    <Sheet title="Items" actions={add}>
      {items?.length === 0 ? (
        <EmptyState title="No items yet" action={add}>
          An item brings its text, price, account and tax code onto a line. Lines can be typed without one.
        </EmptyState>
      ) : (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Item</th>
              <th>Supply</th>
              <th>Tax class</th>
              <th>Statistical code</th>
              <th className="num">Unit price</th>
              <th>Sold with</th>
              <th>Bought with</th>
            </tr>
          </thead>
          <tbody>
            {items?.map((item) => (
              <tr key={item.id}>
                <td>
                  <button
                    type="button"
                    className="cursor-pointer text-left font-semibold hover:text-primary"
                    onClick={() => setEditing(item)}
                  >
                    {item.name}
                  </button>
                </td>
                <td>{item.supply ?? "–"}</td>
                <td>{item.taxClass ?? "–"}</td>
                <td className="font-mono text-[12.5px]">{item.statisticalCode || "–"}</td>
                <td className="num">{item.unitPrice ?? "–"}</td>
                <td>{[item.saleCode, item.saleAccount].filter(Boolean).join(" · ") || "–"}</td>
                <td>{[item.purchaseCode, item.purchaseAccount].filter(Boolean).join(" · ") || "–"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {editing && (
        <ItemDialog item={editing === "new" ? null : editing} name="" onClose={close} onDone={close} />
      )}
    </Sheet>
  );
}
