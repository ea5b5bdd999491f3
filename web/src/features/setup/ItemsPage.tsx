import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { ItemView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../kit/api.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { useItems } from "./useSetup.ts";

/** What is bought and sold again and again. */
export function ItemsPage() {
  const { data: items } = useItems();
  const [adding, setAdding] = useState(false);
  const add = (
    <button type="button" className="action main" onClick={() => setAdding(true)}>
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
              <th className="num">Unit price</th>
              <th>Sold with</th>
              <th>Bought with</th>
            </tr>
          </thead>
          <tbody>
            {items?.map((item) => (
              <tr key={item.id}>
                <td className="font-semibold">{item.name}</td>
                <td>{item.supply ?? "–"}</td>
                <td className="num">{item.unitPrice ?? "–"}</td>
                <td>{[item.saleCode, item.saleAccount].filter(Boolean).join(" · ") || "–"}</td>
                <td>{[item.purchaseCode, item.purchaseAccount].filter(Boolean).join(" · ") || "–"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {adding && <ItemDialog name="" onClose={() => setAdding(false)} onDone={() => setAdding(false)} />}
    </Sheet>
  );
}

/** Also opened from within a line of a document. */
export function ItemDialog({
  name,
  onClose,
  onDone,
}: {
  name: string;
  onClose: () => void;
  onDone: (item: ItemView) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState({
    name,
    supply: "goods" as "goods" | "services",
    unitPrice: "",
    saleCode: "",
    purchaseCode: "",
    saleAccount: "",
    purchaseAccount: "",
  });
  const save = useMutation({
    mutationFn: () => api.post<ItemView>(`/clients/${client?.id}/items`, draft),
    onSuccess: async (item) => {
      await queries.invalidateQueries({ queryKey: ["client", client?.id, "items"] });
      onDone(item);
    },
  });
  const text = (key: keyof typeof draft, label: string) => (
    <Field
      label={label}
      value={draft[key]}
      onChange={(event) => setDraft({ ...draft, [key]: event.target.value })}
    />
  );
  return (
    <FormDialog
      title="Add an item"
      action="Add item"
      className="grid grid-cols-2 gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field
        className="col-span-2"
        label="Name"
        value={draft.name}
        onChange={(event) => setDraft({ ...draft, name: event.target.value })}
        required
        autoFocus
      />
      <SelectField
        label="Supply"
        value={draft.supply}
        onChange={(event) => setDraft({ ...draft, supply: event.target.value as "goods" | "services" })}
      >
        <option>goods</option>
        <option>services</option>
      </SelectField>
      {text("unitPrice", "Unit price")}
      {text("saleCode", "Code on sales")}
      {text("saleAccount", "Account on sales")}
      {text("purchaseCode", "Code on purchases")}
      {text("purchaseAccount", "Account on purchases")}
    </FormDialog>
  );
}
