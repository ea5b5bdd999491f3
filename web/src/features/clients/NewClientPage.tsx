import { FormProvider, useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { at } from "@fiscalon/core/at";
import type { Packs } from "@fiscalon/core/model/packs";
import { activitiesOf, proposeSetup } from "@fiscalon/core/supply/proposeSetup";
import type { BusinessAnswers } from "@fiscalon/core/supply/proposeSetup";
import { clientBody } from "@fiscalon/contract/setup";
import type { ClientBody } from "@fiscalon/contract/setup";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { ChoiceField, TextField } from "../../kit/formFields.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { CountryField, RegionField } from "../../records/placeFields.tsx";
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
  const first = at(packs.all, 0);
  const values: Typed = {
    name: "",
    place: "",
    country: first.country,
    region: "",
    activity: "goods",
    customers: ["home"],
    chosen: {},
  };
  const page = useBodyForm({
    values,
    schema: clientBody,
    body: (typed): ClientBody => {
      const { pack, wanted } = answered(packs, typed);
      return {
        name: typed.name,
        country: pack.country,
        ...(typed.place === ""
          ? {}
          : { place: { name: typed.place, country: pack.country, region: typed.region || null } }),
        registrations: wanted.map(({ draft }) => registrationBody(pack, draft)),
      };
    },
    send: (body) => api.post("/clients", [], body),
    refresh: keys.clients,
    onSaved: ({ id }) => void navigate(`/c/${id}/setup/places`),
  });
  const { control, setValue } = page.form;
  const typed = useWatch({ control }) as Typed;
  const { proposal, pack, registrations, wanted } = answered(packs, typed);
  return (
    <Sheet title="New client" lead="Four answers; the registrations, codes, accounts and rules follow.">
      <FormProvider {...page.form}>
        <form
          className="grid max-w-6xl grid-cols-[minmax(0,1fr)_380px] gap-8"
          onSubmit={(event) => {
            event.preventDefault();
            page.submit();
          }}
        >
          <div className="grid content-start gap-5">
            <div className="grid grid-cols-2 gap-5">
              <TextField name="name" label="Name of the business" autoFocus />
              <TextField name="place" label="Place of business" placeholder="Falmouth studio" />
              <CountryField
                value={typed.country}
                onChange={(country) => {
                  setValue("country", country);
                  setValue("region", "");
                }}
              />
              <RegionField
                country={typed.country}
                value={typed.region}
                onChange={(region) => setValue("region", region)}
              />
              <ChoiceField name="activity" label="What it does">
                {activitiesOf(proposal.pack).map((activity) => (
                  <option key={activity.id} value={activity.id}>
                    {activity.name}
                  </option>
                ))}
              </ChoiceField>
              <Customers value={typed.customers} onChange={(customers) => setValue("customers", customers)} />
            </div>
            {registrations.map(({ key, proposed, on, draft }) => (
              <ProposedRegistrationFields
                key={key}
                pack={pack}
                proposed={proposed}
                on={on}
                draft={draft}
                onChange={(next) => setValue("chosen", { ...typed.chosen, [key]: { on, draft, ...next } })}
                error={(field) =>
                  page.problemAt(`registrations[${wanted.findIndex((one) => one.key === key)}].${field}`)
                }
              />
            ))}
            {wanted.length === 0 && (
              <p className="quiet">
                Documents can be entered all the same; Fiscalon says that they are on no return until a
                registration is added.
              </p>
            )}
            <ErrorNote error={page.error} />
            <div className="flex gap-2">
              <button type="submit" className="action main" disabled={page.pending}>
                Create client
              </button>
              <button type="button" className="action" onClick={() => void navigate("/")}>
                Cancel
              </button>
            </div>
          </div>
          <SetupProposal proposal={proposal} />
        </form>
      </FormProvider>
    </Sheet>
  );
}

interface Typed {
  name: string;
  place: string;
  country: string;
  region: string;
  activity: string;
  customers: BusinessAnswers["customers"];
  /** What was said of proposed registrations, by pack and levies. */
  chosen: Record<string, { on: boolean; draft: RegistrationDraft }>;
}

/** What the answers come to: the proposal, its registrations as far as they were filled in, and those wanted. */
function answered(packs: Packs, { country, region, activity, customers, chosen }: Typed) {
  const proposal = proposeSetup({ country, region: region || null, activity, customers }, packs);
  const pack = proposal.pack ?? at(packs.all, 0);
  const registrations = proposal.registrations.map((proposed) => {
    const key = `${proposed.pack}/${proposed.levies.join("+")}`;
    const draft = { ...blankRegistration(pack), levies: proposed.levies };
    return { key, proposed, ...(chosen[key] ?? { on: proposed.certain, draft }) };
  });
  return { proposal, pack, registrations, wanted: registrations.filter(({ on }) => on) };
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
        <label key={id} className="flex cursor-pointer items-center gap-2 py-1">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
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
