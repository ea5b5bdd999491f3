import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { ItemView } from "@fiscalon/contract/views";
import { useScope } from "../app/scope.ts";
import { api, ApiError } from "../api/client.ts";
import { FormDialog } from "../kit/FormDialog.tsx";
import { Field, SelectField } from "../kit/Field.tsx";

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
  const queries = useQueryClient();
  const [draft, setDraft] = useState({
    name: item?.name ?? name,
    supply: item?.supply ?? "goods",
    taxClass: item?.taxClass ?? "",
    unitPrice: item?.unitPrice ?? "",
    statisticalCode: item?.statisticalCode ?? "",
    saleCode: item?.saleCode ?? "",
    purchaseCode: item?.purchaseCode ?? "",
    saleAccount: item?.saleAccount ?? "",
    purchaseAccount: item?.purchaseAccount ?? "",
  });
  const classes = packs.ofCountry(client?.country ?? "")?.classes ?? [];
  const save = useMutation({
    mutationFn: () => {
      const path = `/clients/${client?.id}/items`;
      const body = { ...draft, taxClass: draft.taxClass || null };
      return item ? api.put<ItemView>(`${path}/${item.id}`, body) : api.post<ItemView>(path, body);
    },
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "items") });
      onDone(saved);
    },
  });
  const text = (key: keyof typeof draft, label: string, hint?: string) => (
    <Field
      label={label}
      value={draft[key]}
      hint={hint}
      error={save.error instanceof ApiError && save.error.field === key ? save.error.message : undefined}
      onChange={(event) => setDraft({ ...draft, [key]: event.target.value })}
    />
  );
  return (
    <FormDialog
      title={item ? "Change item" : "Add an item"}
      action={item ? "Save" : "Add item"}
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
      <SelectField
        label="Tax class"
        value={draft.taxClass}
        hint="With it the supply rules choose the code by place and customer"
        onChange={(event) => setDraft({ ...draft, taxClass: event.target.value })}
      >
        <option value="">by its codes</option>
        {classes.map(({ id, name: words }) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </SelectField>
      {text("unitPrice", "Unit price")}
      {text("statisticalCode", "Statistical code", "HSN, HS or the like")}
      {text("saleCode", "Code on sales")}
      {text("saleAccount", "Account on sales")}
      {text("purchaseCode", "Code on purchases")}
      {text("purchaseAccount", "Account on purchases")}
    </FormDialog>
  );
}
