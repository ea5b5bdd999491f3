import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { ContactBody } from "@fiscalon/contract/setup";
import type { ContactView } from "@fiscalon/contract/views";
import { packOfCountry } from "@fiscalon/core/jurisdictions/packs";
import { useScope } from "../../app/scope.ts";
import { api } from "../../kit/api.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";

/** Adds or changes a contact; also opened from within a document. */
export function ContactDialog({
  contact,
  name,
  onClose,
  onDone,
}: {
  contact: ContactView | null;
  name: string;
  onClose: () => void;
  onDone: (contact: ContactView) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState({
    name: contact?.name ?? name,
    country: contact?.country ?? client?.country ?? "",
    taxNumber: contact?.taxNumber ?? "",
    registered:
      contact?.registered === undefined || contact.registered === null
        ? ""
        : contact.registered
          ? "yes"
          : "no",
    saleCode: contact?.saleCode ?? "",
    purchaseCode: contact?.purchaseCode ?? "",
  });
  const save = useMutation({
    mutationFn: () => {
      const body: ContactBody = {
        name: draft.name,
        country: draft.country || null,
        region: contact?.region ?? null,
        taxNumber: draft.taxNumber || null,
        registered: draft.registered === "" ? null : draft.registered === "yes",
        saleCode: draft.saleCode || null,
        purchaseCode: draft.purchaseCode || null,
      };
      const path = `/clients/${client?.id}/contacts`;
      return contact
        ? api.put<ContactView>(`${path}/${contact.id}`, body)
        : api.post<ContactView>(path, body);
    },
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: ["client", client?.id] });
      onDone(saved);
    },
  });
  const pack = packOfCountry(draft.country);
  const check = pack && draft.taxNumber.trim() !== "" ? pack.checkNumber(draft.taxNumber) : undefined;
  return (
    <FormDialog
      title={contact ? "Change contact" : "Add a contact"}
      action={contact ? "Save" : "Add contact"}
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
      <Field
        label="Country, two letters"
        value={draft.country}
        maxLength={2}
        onChange={(event) => setDraft({ ...draft, country: event.target.value.toUpperCase() })}
      />
      <SelectField
        label="Registered for VAT"
        value={draft.registered}
        onChange={(event) => setDraft({ ...draft, registered: event.target.value })}
      >
        <option value="">not known</option>
        <option value="yes">yes</option>
        <option value="no">no</option>
      </SelectField>
      <Field
        className="col-span-2 font-mono"
        label="Tax number"
        value={draft.taxNumber}
        onChange={(event) => setDraft({ ...draft, taxNumber: event.target.value })}
        hint={
          check === undefined
            ? "Needed on larger purchases and for reverse charges"
            : check.ok
              ? "✓ The check digits fit."
              : check.message
        }
      />
      <Field
        label="Usual code on sales"
        value={draft.saleCode}
        onChange={(event) => setDraft({ ...draft, saleCode: event.target.value.toUpperCase() })}
      />
      <Field
        label="Usual code on purchases"
        value={draft.purchaseCode}
        onChange={(event) => setDraft({ ...draft, purchaseCode: event.target.value.toUpperCase() })}
      />
    </FormDialog>
  );
}
