import { keys } from "../../api/keys.ts";
import { at } from "@fiscalon/core/at";
import { usePacks } from "../../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { ClientBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { activitiesOf, proposeSetup } from "@fiscalon/core/supply/proposeSetup";
import type { BusinessAnswers } from "@fiscalon/core/supply/proposeSetup";
import { api, ApiError } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { CountryField, RegionField } from "../../records/PlaceDialogs.tsx";
import type { RegistrationDraft } from "../../records/RegistrationFields.tsx";
import { blankRegistration, registrationBody } from "../../records/RegistrationFields.tsx";
import { ProposedRegistrationFields } from "./ProposedRegistrationFields.tsx";
import { SetupProposal } from "./SetupProposal.tsx";

const CUSTOMERS = [
  ["home", "Customers at home"],
  ["businesses", "Businesses abroad"],
  ["abroad", "Private customers abroad"],
] as const;

/** First set-up of a client: where it is, what it does and for whom; Fiscalon proposes the rest. */
export function NewClientPage() {
  const packs = usePacks();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [place, setPlace] = useState("");
  const [answers, setAnswers] = useState<BusinessAnswers>({
    country: at(packs.all, 0).country,
    region: null,
    activity: "goods",
    customers: ["home"],
  });
  const proposal = useMemo(() => proposeSetup(answers, packs), [answers, packs]);
  const [chosen, setChosen] = useState<Record<string, { on: boolean; draft: RegistrationDraft }>>({});
  const pack = proposal.pack ?? at(packs.all, 0);
  const registrations = proposal.registrations.map((proposed) => {
    const key = `${proposed.pack}/${proposed.levies.join("+")}`;
    const draft = { ...blankRegistration(pack), levies: proposed.levies };
    return { key, proposed, ...(chosen[key] ?? { on: proposed.certain, draft }) };
  });
  const wanted = registrations.filter(({ on }) => on);
  const create = useMutation({
    mutationFn: () => {
      const body: ClientBody = {
        name,
        country: pack.country,
        ...(place === ""
          ? {}
          : { place: { name: place, country: pack.country, region: answers.region || null } }),
        registrations: wanted.map(({ draft }) => registrationBody(pack, draft)),
      };
      return api.post<ClientView>("/clients", body);
    },
    onSuccess: async (client) => {
      await queries.invalidateQueries({ queryKey: keys.clients });
      await navigate(`/c/${client.id}/setup/places`);
    },
  });
  const failed = create.error instanceof ApiError ? create.error : null;
  const field = (path: string) => (failed?.field === path ? failed.message : undefined);
  const set = (change: Partial<BusinessAnswers>) => setAnswers({ ...answers, ...change });
  return (
    <Sheet title="New client" lead="Four answers; the registrations, codes, accounts and rules follow.">
      <form
        className="grid max-w-6xl grid-cols-[minmax(0,1fr)_380px] gap-8"
        onSubmit={(event) => {
          event.preventDefault();
          create.mutate();
        }}
      >
        <div className="grid content-start gap-5">
          <div className="grid grid-cols-2 gap-5">
            <Field
              label="Name of the business"
              value={name}
              onChange={(event) => setName(event.target.value)}
              error={field("name")}
              autoFocus
              required
            />
            <Field
              label="Place of business"
              value={place}
              onChange={(event) => setPlace(event.target.value)}
              error={field("place.name")}
              placeholder="Falmouth studio"
            />
            <CountryField value={answers.country} onChange={(country) => set({ country, region: null })} />
            <RegionField
              country={answers.country}
              value={answers.region ?? ""}
              onChange={(region) => set({ region: region || null })}
            />
            <SelectField
              label="What it does"
              value={answers.activity}
              onChange={(event) => set({ activity: event.target.value })}
            >
              {activitiesOf(proposal.pack).map((activity) => (
                <option key={activity.id} value={activity.id}>
                  {activity.name}
                </option>
              ))}
            </SelectField>
            <Customers value={answers.customers} onChange={(customers) => set({ customers })} />
          </div>
          {registrations.map(({ key, proposed, on, draft }) => (
            <ProposedRegistrationFields
              key={key}
              pack={pack}
              proposed={proposed}
              on={on}
              draft={draft}
              onChange={(next) => setChosen({ ...chosen, [key]: { on, draft, ...next } })}
              error={(path) =>
                field(
                  path.replace(
                    /^registration/,
                    `registrations[${wanted.findIndex((one) => one.key === key)}]`,
                  ),
                )
              }
            />
          ))}
          {wanted.length === 0 && (
            <p className="quiet">
              Documents can be entered all the same; Fiscalon says that they are on no return until a
              registration is added.
            </p>
          )}
          <ErrorNote error={create.error} />
          <div className="flex gap-2">
            <button type="submit" className="action main" disabled={create.isPending}>
              Create client
            </button>
            <button type="button" className="action" onClick={() => void navigate("/")}>
              Cancel
            </button>
          </div>
        </div>
        <SetupProposal proposal={proposal} />
      </form>
    </Sheet>
  );
}

function Customers({
  value,
  onChange,
}: {
  value: BusinessAnswers["customers"];
  onChange: (value: BusinessAnswers["customers"]) => void;
}) {
  return (
    <fieldset>
      <legend className="field-label">Who it sells to</legend>
      {CUSTOMERS.map(([id, words]) => (
        <label key={id} className="flex cursor-pointer items-center gap-2 py-0.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={value.includes(id)}
            onChange={(event) =>
              onChange(event.target.checked ? [...value, id] : value.filter((one) => one !== id))
            }
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}
