import { keys } from "../api/keys.ts";
import type { Packs } from "@fiscalon/core/model/packs";
import { usePacks } from "../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { ContactBody, StandingBody } from "@fiscalon/contract/setup";
import type { ContactView } from "@fiscalon/contract/views";
import type { NumberCheck } from "@fiscalon/core/model/pack";
import { standingsAsked } from "@fiscalon/core/supply/standingsAsked";
import { useScope } from "../app/scope.ts";
import { api } from "../api/client.ts";
import { FormDialog } from "../kit/FormDialog.tsx";
import { Field } from "../kit/Field.tsx";
import { today } from "../kit/format.ts";
import { AnyCountryField } from "./AnyCountryField.tsx";
import { RegionField } from "./PlaceDialogs.tsx";
import { RegisterQuestion } from "./RegisterQuestion.tsx";
import { StandingField } from "./StandingField.tsx";

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
  const packs = usePacks();
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState({
    name: contact?.name ?? name,
    country: contact?.country ?? client?.country ?? "",
    region: contact?.region ?? "",
    taxNumber: contact?.taxNumber ?? "",
    standing: startingStanding(packs, contact, client?.country ?? ""),
    saleCode: contact?.saleCode ?? "",
    purchaseCode: contact?.purchaseCode ?? "",
  });
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });
  const asked = standingsAsked(client?.places ?? [], client?.registrations ?? [], today(), packs);
  const save = useMutation({
    mutationFn: () => {
      const body: ContactBody = {
        name: draft.name,
        country: draft.country || null,
        region: draft.region || null,
        taxNumber: draft.taxNumber || null,
        standing: draft.standing,
        saleCode: draft.saleCode || null,
        purchaseCode: draft.purchaseCode || null,
      };
      const path = `/clients/${client?.id}/contacts`;
      return contact
        ? api.put<ContactView>(`${path}/${contact.id}`, body)
        : api.post<ContactView>(path, body);
    },
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onDone(saved);
    },
  });
  const check = numberCheck(packs, draft.country, draft.taxNumber);
  return (
    <FormDialog
      title={contact ? "Change contact" : "Add a contact"}
      action={contact ? "Save" : "Add contact"}
      className="grid max-h-[70vh] grid-cols-2 gap-4 overflow-y-auto pr-1"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field
        className="col-span-2"
        label="Name"
        value={draft.name}
        onChange={(event) => set({ name: event.target.value })}
        required
        autoFocus
      />
      <AnyCountryField value={draft.country} onChange={(country) => set({ country, region: "" })} />
      <RegionField country={draft.country} value={draft.region} onChange={(region) => set({ region })} />
      <div className="col-span-2">
        <Field
          className="font-mono"
          label="Tax number"
          value={draft.taxNumber}
          onChange={(event) => set({ taxNumber: event.target.value })}
          hint={
            check === undefined
              ? "Needed on larger purchases and for reverse charges"
              : check.ok
                ? "✓ The check digits fit."
                : check.message
          }
        />
        {check?.ok && <RegisterQuestion country={draft.country} number={draft.taxNumber} />}
      </div>
      {asked.map((one) => (
        <StandingField
          key={`${one.country} ${one.levy}`}
          asked={one}
          value={draft.standing[one.levy]}
          onChange={(value) => {
            const { [one.levy]: _, ...rest } = draft.standing;
            set({ standing: value === undefined ? rest : { ...rest, [one.levy]: value } });
          }}
        />
      ))}
      <Field
        label="Usual code on sales"
        value={draft.saleCode}
        onChange={(event) => set({ saleCode: event.target.value.toUpperCase() })}
      />
      <Field
        label="Usual code on purchases"
        value={draft.purchaseCode}
        onChange={(event) => set({ purchaseCode: event.target.value.toUpperCase() })}
      />
    </FormDialog>
  );
}

/** The digits of a number, checked for countries with a pack and for members of the European Union. */
export function numberCheck(packs: Packs, country: string, number: string): NumberCheck | undefined {
  if (number.trim() === "") return undefined;
  const union = packs.all.find((pack) => pack.union?.members.has(country))?.union;
  return packs.ofCountry(country)?.checkNumber(number) ?? union?.checkNumber(country, number);
}

/** What is kept; contacts kept before standings were asked say only whether they are registered. */
function startingStanding(
  packs: Packs,
  contact: ContactView | null,
  home: string,
): Record<string, StandingBody> {
  if (!contact) return {};
  if (Object.keys(contact.standing).length > 0 || contact.registered === null) return contact.standing;
  const levy = packs.ofCountry(home)?.levies[0]?.levy;
  return levy === undefined ? {} : { [levy]: contact.registered ? "registered" : "not-registered" };
}
