import { useWatch } from "react-hook-form";
import { at } from "@fiscalon/core/at";
import { registrable } from "@fiscalon/core/supply/proposeSetup";
import type { ProposedRegistration } from "@fiscalon/core/supply/proposeSetup";
import { registrationBody as schema } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { SelectField } from "../kit/Field.tsx";
import { useBodyForm } from "../kit/useBodyForm.ts";
import {
  blankRegistration,
  RegistrationFields,
  registrationBody,
  useNumberCheck,
} from "./RegistrationFields.tsx";
import type { RegistrationDraft } from "./RegistrationFields.tsx";

/** Another registration of the client: one that was proposed for a place, or any. */
export function AddRegistration({
  client,
  proposal,
  onClose,
}: {
  client: ClientView;
  proposal: ProposedRegistration | null;
  onClose: () => void;
}) {
  const packs = usePacks();
  const first = packs.byId(proposal?.pack ?? packs.ofCountry(client.country)?.id ?? at(packs.all, 0).id);
  const dialog = useBodyForm({
    values: {
      pack: first.id,
      ...blankRegistration(first),
      ...(proposal ? { levies: proposal.levies } : {}),
    },
    schema,
    body: ({ pack, ...draft }) => registrationBody(packs.byId(pack), draft),
    send: (body) => api.post("/clients/:id/registrations", [client.id], body),
    refresh: keys.client(client.id),
    onSaved: onClose,
  });
  const { control, setValue, formState } = dialog.form;
  const typed = useWatch({ control }) as RegistrationDraft & { pack: string };
  const pack = packs.byId(typed.pack);
  const numberCheck = useNumberCheck(pack, typed.number);
  const kinds = proposal ? [] : registrable(pack);
  const set = (draft: RegistrationDraft) => {
    for (const [name, value] of Object.entries(draft))
      setValue(name as keyof RegistrationDraft, value as never);
  };
  return (
    <BodyDialog of={dialog} title="Add a registration" action="Add registration" wide onClose={onClose}>
      {!proposal && (
        <SelectField
          className="mb-4"
          label="Jurisdiction"
          value={typed.pack}
          onChange={({ target }) => {
            setValue("pack", target.value);
            set(blankRegistration(packs.byId(target.value)));
          }}
        >
          {packs.all.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {kinds.length > 1 && (
        <SelectField
          className="mb-4"
          label="For"
          value={(typed.levies ?? kinds[0]?.levies ?? []).join()}
          onChange={({ target }) =>
            set({
              ...typed,
              levies: kinds.find(({ levies }) => levies.join() === target.value)?.levies ?? null,
            })
          }
        >
          {kinds.map(({ levies, name }) => (
            <option key={levies.join()} value={levies.join()}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {proposal && (
        <p className="note-row mb-4">
          For {packs.levyNames(proposal.levies)}. {proposal.why}
        </p>
      )}
      <RegistrationFields
        pack={pack}
        value={typed}
        onChange={set}
        error={(field) => formState.errors[field]?.message}
        numberCheck={numberCheck}
      />
      <p className="quiet mt-2">
        Documents from that day on that waited for a registration are counted by themselves.
      </p>
    </BodyDialog>
  );
}
