import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { rhythmInWords } from "@fiscalon/core/calendar/rhythmInWords";
import { basisOn } from "@fiscalon/core/model/registration";
import type { RegistrationChangeBody } from "@fiscalon/contract/setup";
import type { RegistrationView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { showDate, today } from "../../kit/format.ts";
import { BASIS_WORDS, useNumberCheck } from "../../records/RegistrationFields.tsx";

/** Changes a registration: number, end, choices, and another rhythm from a day on. */
export function ChangeRegistration({
  registration,
  onClose,
}: {
  registration: RegistrationView;
  onClose: () => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const queries = useQueryClient();
  const pack = packs.byId(registration.pack);
  const [number, setNumber] = useState(registration.number ?? "");
  const [to, setTo] = useState(registration.to ?? "");
  const [from, setFrom] = useState("");
  const [rhythm, setRhythm] = useState(pack.rhythms[0]?.id ?? "");
  const [basis, setBasis] = useState(basisOn(registration, today()));
  const [options, setOptions] = useState(registration.options);
  const [changes, setChanges] = useState(registration.changes);
  const save = useMutation({
    mutationFn: () => {
      const chosen = pack.rhythms.find((one) => one.id === rhythm);
      const body: RegistrationChangeBody = {
        number: number || null,
        to: to || null,
        options,
        changes:
          from !== "" && chosen
            ? [...changes, { from, frequency: chosen.frequency, anchor: chosen.anchor, basis }]
            : changes,
      };
      return api.put(`/clients/${client?.id}/registrations/${registration.id}`, body);
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  const check = useNumberCheck(pack, number);
  return (
    <FormDialog
      title={`${registration.levies.join(", ")}, ${registration.packName}`}
      action="Save"
      wide
      className="grid grid-cols-2 gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field
        label={pack.numberName}
        value={number}
        className="font-mono"
        hint={number !== "" && check === undefined ? "✓ The number fits." : (check ?? pack.numberHint)}
        onChange={(event) => setNumber(event.target.value)}
      />
      <DateField label="Ends on" value={to} optional className="w-full" onChange={setTo} />
      <fieldset className="col-span-2 grid grid-cols-2 gap-4 border-t border-base-300 pt-3">
        <legend className="font-semibold">Another rhythm or basis from a day on</legend>
        <DateField label="From" value={from} optional className="w-full" onChange={setFrom} />
        <SelectField
          label="Filing periods"
          value={rhythm}
          hint="The running period ends the day before."
          onChange={(event) => setRhythm(event.target.value)}
        >
          {pack.rhythms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
        {pack.bases.length > 1 && (
          <SelectField
            className="col-span-2"
            label="Basis"
            value={basis}
            onChange={(event) => setBasis(event.target.value as typeof basis)}
          >
            {pack.bases.map((one) => (
              <option key={one} value={one}>
                {BASIS_WORDS[one]}
              </option>
            ))}
          </SelectField>
        )}
        {changes.map((change) => (
          <p key={change.from} className="quiet col-span-2">
            {rhythmInWords(change.frequency, change.anchor)}
            {change.basis ? `, ${change.basis} basis` : ""} from {showDate(change.from)}{" "}
            <button
              type="button"
              className="word-link"
              onClick={() => setChanges(changes.filter((one) => one.from !== change.from))}
            >
              Take out
            </button>
          </p>
        ))}
      </fieldset>
      {pack.options?.map((option) => (
        <SelectField
          key={option.id}
          className="col-span-2"
          label={option.name}
          value={options[option.id] ?? option.values[0]?.value ?? ""}
          hint={option.source}
          onChange={(event) => setOptions({ ...options, [option.id]: event.target.value })}
        >
          {option.values.map(({ value, name }) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
      ))}
    </FormDialog>
  );
}
