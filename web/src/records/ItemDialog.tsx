import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.ts";
import { itemBody } from "@fiscalon/contract/setup";
import type { ItemBody } from "@fiscalon/contract/setup";
import type { ItemView } from "@fiscalon/contract/views";
import { useScope } from "../app/scope.ts";
import { api } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { ChoiceField, TextField } from "../kit/formFields.tsx";
import { useBodyForm } from "../kit/useBodyForm.ts";

/** Adds or changes an item; adding is also opened from within a line of a document. */
export function ItemDialog({
  item = null,
  name,
  onClose,
  onDone,
}: {
  item?: ItemView | null;
  name: string;
  onClose: () => void;
  onDone: (item: ItemView) => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const classes = packs.ofCountry(client?.country ?? "")?.classes ?? [];
  const dialog = useBodyForm({
    values: {
      name: item?.name ?? name,
      supply: item?.supply ?? "goods",
      taxClass: item?.taxClass ?? "",
      unitPrice: item?.unitPrice ?? "",
      statisticalCode: item?.statisticalCode ?? "",
      saleCode: item?.saleCode ?? "",
      purchaseCode: item?.purchaseCode ?? "",
      saleAccount: item?.saleAccount ?? "",
      purchaseAccount: item?.purchaseAccount ?? "",
    },
    schema: itemBody,
    body: (typed): ItemBody => ({ ...typed, taxClass: typed.taxClass || null }),
    seen: seenOf(item),
    send: (body, _typed, seen) =>
      item
        ? api.put("/clients/:id/items/:item", [client?.id, item.id], body, seen)
        : api.post("/clients/:id/items", [client?.id], body),
    refresh: keys.of(client?.id, "items"),
    onSaved: onDone,
  });
  return (
    <BodyDialog
      of={dialog}
      title={item ? "Change item" : "Add an item"}
      action={item ? "Save" : "Add item"}
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField className="col-span-2" name="name" label="Name" autoFocus />
      <ChoiceField name="supply" label="Supply">
        <option>goods</option>
        <option>services</option>
      </ChoiceField>
      <ChoiceField
        name="taxClass"
        label="Tax class"
        hint="With it the supply rules choose the code by place and customer"
      >
        <option value="">by its codes</option>
        {classes.map(({ id, name: words }) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </ChoiceField>
      <TextField name="unitPrice" label="Unit price" />
      <TextField name="statisticalCode" label="Statistical code" hint="HSN, HS or the like" />
      <TextField name="saleCode" label="Code on sales" upper />
      <TextField name="saleAccount" label="Account on sales" />
      <TextField name="purchaseCode" label="Code on purchases" upper />
      <TextField name="purchaseAccount" label="Account on purchases" />
    </BodyDialog>
  );
}
