import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { textAt } from "@fiscalon/core/at";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { useWatch } from "react-hook-form";
import { registrationChangeBody } from "@fiscalon/contract/setup";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { rhythmInWords } from "@fiscalon/core/calendar/rhythmInWords";
import { basesFor, inForceOn, optionsFor, optionsOn, rhythmsFor } from "@fiscalon/core/model/registration";
import { schemesOf } from "@fiscalon/core/model/scheme";
import type { Options } from "@fiscalon/core/model/registration";
import { basisOffer, basisOn, waysOfLeaving } from "@fiscalon/core/model/basis";
import { formOfRegistration } from "@fiscalon/core/returns/formOn";
import type { RegistrationChangeBody } from "@fiscalon/contract/setup";
import type { RegistrationView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { today } from "../../kit/format.ts";
import { ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { SchemeFields } from "./SchemeFields.tsx";
import { useNumberCheck } from "../../records/RegistrationFields.tsx";

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
  const pack = packs.byId(registration.pack);
  const offered = schemesOf(pack).filter(({ levies }) =>
    levies.some((levy) => registration.levies.includes(levy)),
  );
  const now = inForceOn(registration, today());
  const running = rhythmOn(registration, now);
  const dialog = useBodyForm({
    values: {
      number: registration.number ?? "",
      to: registration.to ?? "",
      from: "",
      rhythm: "",
      basis: basisOn(registration, now),
      leaving: "",
      options: optionsOn(pack, registration, now),
      changes: registration.changes,
      opening: registration.opening,
      schemes: registration.schemes,
    },
    schema: registrationChangeBody,
    body: ({
      number,
      to,
      from,
      rhythm,
      basis,
      leaving: way,
      options,
      changes,
      opening,
      schemes,
    }): RegistrationChangeBody => {
      const chosen = pack.rhythms.find((one) => one.id === rhythm) ?? running;
      const other = otherChoices(options, optionsOn(pack, registration, from === "" ? now : from));
      return {
        number: number || null,
        to: to || null,
        ...(offered.length === 0 ? {} : { schemes: [...schemes] }),
        opening: Object.fromEntries(Object.entries(opening).filter(([, amount]) => amount !== "")),
        ...(from === "" ? { options: { ...registration.options, ...other } } : {}),
        changes:
          from !== ""
            ? [
                ...changes,
                {
                  from,
                  frequency: chosen.frequency,
                  anchor: chosen.anchor,
                  basis,
                  ...(way === "" ? {} : { leaving: way }),
                  ...(Object.keys(other).length === 0 ? {} : { options: other }),
                },
              ]
            : changes,
      };
    },
    seen: seenOf(registration),
    send: (body, _typed, seen) =>
      api.put("/clients/:id/registrations/:rid", [client?.id, registration.id], body, seen),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  const { control, setValue } = dialog.form;
  const [number, options, changes, from, basis, leaving, opening, schemes] = useWatch({
    control,
    name: ["number", "options", "changes", "from", "basis", "leaving", "opening", "schemes"],
  });
  const brought = formOfRegistration(pack, registration, now).boxes.filter(({ kind }) => kind === "carried");
  const ways = from === "" ? [] : waysOfLeaving(pack.bases, { ...registration, changes }, { from, basis });
  const bases = basesFor(pack, registration.levies);
  const check = useNumberCheck(pack, number);
  return (
    <BodyDialog
      of={dialog}
      title={`${packs.levyNames(registration.levies)}, ${registration.packName}`}
      action="Save"
      wide
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField
        name="number"
        label={pack.numberName}
        className="font-mono"
        hint={number !== "" && check === undefined ? "✓ The number fits." : (check ?? pack.numberHint)}
      />
      <DayField name="to" label="Ends on" optional />
      <fieldset className="col-span-2 grid grid-cols-2 gap-4 border-t border-base-300 pt-3">
        <legend className="font-semibold">Another rhythm, basis or choice from a day on</legend>
        <DayField name="from" label="From" optional />
        <ChoiceField name="rhythm" label="Filing periods" hint="The running period ends the day before.">
          <option value="">as now: {rhythmInWords(running.frequency, running.anchor)}</option>
          {rhythmsFor(pack, registration.levies).map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </ChoiceField>
        {bases.length > 1 && (
          <ChoiceField className="col-span-2" name="basis" label="Basis">
            {bases.map((one) => (
              <option key={one.basis} value={one.basis}>
                {one.name}
              </option>
            ))}
          </ChoiceField>
        )}
        {ways.length > 0 && (
          <ChoiceField
            className="col-span-2"
            name="leaving"
            label="What is unpaid then"
            hint={(ways.find(({ id }) => id === leaving) ?? ways[0])?.source}
          >
            {ways.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </ChoiceField>
        )}
        {changes.map((change) => (
          <p key={change.from} className="quiet col-span-2">
            {rhythmInWords(change.frequency, change.anchor)}
            {change.basis ? `, ${basisOffer(pack.bases, change.basis).name}` : ""} from{" "}
            {displayDate(change.from)}{" "}
            <button
              type="button"
              className="word-link"
              onClick={() =>
                setValue(
                  "changes",
                  changes.filter((one) => one.from !== change.from),
                )
              }
            >
              Take out
            </button>
          </p>
        ))}
      </fieldset>
      {optionsFor(pack, registration.levies).map((option) => (
        <SelectField
          key={option.id}
          className="col-span-2"
          label={option.name}
          value={options[option.id] ?? option.values[0]?.value ?? ""}
          hint={from === "" ? option.source : `From ${displayDate(from)} on. ${option.source}`}
          onChange={({ target }) => setValue("options", { ...options, [option.id]: target.value })}
        >
          {option.values.map(({ value, name }) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
      ))}
      {offered.length > 0 && (
        <SchemeFields
          offered={offered}
          schemes={schemes}
          registration={registration}
          onChange={(next) => setValue("schemes", next)}
        />
      )}
      {brought.length > 0 && (
        <details className="col-span-2 border-t border-base-300 pt-3" open={Object.keys(opening).length > 0}>
          <summary className="cursor-pointer font-semibold">Brought into the first return here</summary>
          <p className="quiet mt-1 text-[12.5px]">
            What the return before the first one in these books carried forward. Enter the credit in the
            opening balances too, on the account for credit carried forward.
          </p>
          <div className="mt-2 grid grid-cols-3 gap-x-4 gap-y-2">
            {brought.map(({ id, short }) => (
              <Field
                key={id}
                className="font-mono"
                label={short}
                inputMode="decimal"
                value={textAt(opening, id)}
                onChange={({ target }) =>
                  setValue("opening", { ...opening, [id]: target.value.replaceAll(",", "") })
                }
              />
            ))}
          </div>
        </details>
      )}
    </BodyDialog>
  );
}

/** The choices that differ from those that hold now. */
function otherChoices(options: Options, now: Options): Record<string, string> {
  return Object.fromEntries(Object.entries(options).filter(([id, value]) => now[id] !== value));
}
