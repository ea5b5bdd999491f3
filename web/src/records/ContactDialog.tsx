import { keys } from "../api/keys.ts";
import type { Packs } from "@fiscalon/core/model/packs";
import { usePacks } from "../api/packs.ts";
import { useWatch } from "react-hook-form";
import { contactBody } from "@fiscalon/contract/setup";
import type { ContactBody, StandingBody } from "@fiscalon/contract/setup";
import type { ContactView } from "@fiscalon/contract/views";
import type { NumberCheck } from "@fiscalon/core/model/pack";
import { standingsAsked } from "@fiscalon/core/supply/standingsAsked";
import { useScope } from "../app/scope.ts";
import { api } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { TextField } from "../kit/formFields.tsx";
import { today } from "../kit/format.ts";
import { useBodyForm } from "../kit/useBodyForm.ts";
import { AnyCountryField } from "./AnyCountryField.tsx";
import { RegionField } from "./placeFields.tsx";
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
  const dialog = useBodyForm({
    values: {
      name: contact?.name ?? name,
      country: contact?.country ?? client?.country ?? "",
      region: contact?.region ?? "",
      taxNumber: contact?.taxNumber ?? "",
      standing: startingStanding(packs, contact, client?.country ?? ""),
      saleCode: contact?.saleCode ?? "",
      purchaseCode: contact?.purchaseCode ?? "",
    },
    schema: contactBody,
    body: (typed): ContactBody => ({
      ...typed,
      country: typed.country || null,
      region: typed.region || null,
      taxNumber: typed.taxNumber || null,
      saleCode: typed.saleCode || null,
      purchaseCode: typed.purchaseCode || null,
    }),
    seen: seenOf(contact),
    send: (body, _typed, seen) =>
      contact
        ? api.put("/clients/:id/contacts/:contact", [client?.id, contact.id], body, seen)
        : api.post("/clients/:id/contacts", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved: onDone,
  });
  const { control, setValue } = dialog.form;
  const [country, region, taxNumber, standing] = useWatch({
    control,
    name: ["country", "region", "taxNumber", "standing"],
  });
  const asked = standingsAsked(client?.places ?? [], client?.registrations ?? [], today(), packs);
  const check = numberCheck(packs, country, taxNumber);
  return (
    <BodyDialog
      of={dialog}
      title={contact ? "Change contact" : "Add a contact"}
      action={contact ? "Save" : "Add contact"}
      className="grid max-h-[70vh] grid-cols-2 gap-4 overflow-y-auto pr-1"
      onClose={onClose}
    >
      <TextField className="col-span-2" name="name" label="Name" autoFocus />
      <AnyCountryField
        value={country}
        onChange={(next) => {
          setValue("country", next);
          setValue("region", "");
        }}
      />
      <RegionField country={country} value={region} onChange={(next) => setValue("region", next)} />
      <div className="col-span-2">
        <TextField
          className="font-mono"
          name="taxNumber"
          label="Tax number"
          hint={
            check === undefined
              ? "Needed on larger purchases and for reverse charges"
              : check.ok
                ? "✓ The check digits fit."
                : check.message
          }
        />
        {check?.ok && <RegisterQuestion country={country} number={taxNumber} />}
      </div>
      {asked.map((one) => (
        <StandingField
          key={`${one.country} ${one.levy}`}
          asked={one}
          value={standing[one.levy]}
          onChange={(value) => {
            const { [one.levy]: _, ...rest } = standing;
            setValue("standing", value === undefined ? rest : { ...rest, [one.levy]: value });
          }}
        />
      ))}
      <TextField name="saleCode" label="Usual code on sales" upper />
      <TextField name="purchaseCode" label="Usual code on purchases" upper />
    </BodyDialog>
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
