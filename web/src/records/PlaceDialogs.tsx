import { keys } from "../api/keys.ts";
import { at } from "@fiscalon/core/at";
import type { Packs } from "@fiscalon/core/model/packs";
import { usePacks } from "../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { standingsAsked } from "@fiscalon/core/supply/standingsAsked";
import type { ProposedRegistration } from "@fiscalon/core/supply/proposeSetup";
import type { ClientView } from "@fiscalon/contract/views";
import { api, ApiError } from "../api/client.ts";
import { DateField } from "../kit/DateField.tsx";
import { Field, SelectField } from "../kit/Field.tsx";
import { FormDialog } from "../kit/FormDialog.tsx";
import { today } from "../kit/format.ts";
import {
  blankRegistration,
  RegistrationFields,
  registrationBody,
  useNumberCheck,
} from "./RegistrationFields.tsx";

/** The countries with a pack, then any other by its two letters. */
export function CountryField({ value, onChange }: { value: string; onChange: (country: string) => void }) {
  const packs = usePacks().all;
  const known = packs.some((pack) => pack.country === value);
  return (
    <SelectField
      label="Country"
      value={known ? value : "?"}
      onChange={(event) => onChange(event.target.value)}
    >
      {[...new Map(packs.map((pack) => [pack.country, pack])).values()].map(({ country, name }) => (
        <option key={country} value={country}>
          {name}
        </option>
      ))}
      {!known && <option value="?">{value || "choose"}</option>}
    </SelectField>
  );
}

export function RegionField({
  country,
  value,
  onChange,
}: {
  country: string;
  value: string;
  onChange: (region: string) => void;
}) {
  const packs = usePacks();
  const regions = packs.ofCountry(country)?.regions ?? [];
  if (regions.length === 0) return null;
  return (
    <SelectField label="Region" value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{packs.ofCountry(country)?.elsewhere ?? "choose"}</option>
      {regions.map(({ code, name }) => (
        <option key={code} value={code}>
          {name}
        </option>
      ))}
    </SelectField>
  );
}

export function AddPlace({ client, onClose }: { client: ClientView; onClose: () => void }) {
  const packs = usePacks();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [country, setCountry] = useState(client.country);
  const [region, setRegion] = useState("");
  const save = useMutation({
    mutationFn: () => api.post(`/clients/${client.id}/places`, { name, country, region: region || null }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client.id) });
      onClose();
    },
  });
  const before = askedOf(client.places, client, packs);
  const after = askedOf(
    [...client.places, { name: name || "the new place", country, region, closedOn: null }],
    client,
    packs,
  );
  const more = after.filter(
    (one) => !before.some((old) => old.levy === one.levy && old.country === one.country),
  );
  return (
    <FormDialog
      title="Add a place"
      action="Add place"
      className="grid gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field label="Name" value={name} onChange={(event) => setName(event.target.value)} required />
      <div className="grid grid-cols-2 gap-4">
        <CountryField
          value={country}
          onChange={(next) => {
            setCountry(next);
            setRegion("");
          }}
        />
        <RegionField country={country} value={region} onChange={setRegion} />
      </div>
      <Changes
        title="From then on contacts are also asked"
        rows={more.map(({ name: levy, reason }) => `${levy}, ${reason}`)}
      />
      <p className="quiet">The registrations it may need are proposed beside the place, with the reason.</p>
    </FormDialog>
  );
}

/** Another name or region; with another region its open documents are worked out anew. */
export function ChangePlace({
  place,
  client,
  onClose,
}: {
  place: ClientView["places"][number];
  client: ClientView;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const [name, setName] = useState(place.name);
  const [region, setRegion] = useState(place.region ?? "");
  const save = useMutation({
    mutationFn: () =>
      api.put(`/clients/${client.id}/places/${place.id}`, { name, region: region === "" ? null : region }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client.id) });
      onClose();
    },
  });
  return (
    <FormDialog
      title={`Change ${place.name}`}
      action="Save"
      className="grid gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field label="Name" value={name} onChange={(event) => setName(event.target.value)} required />
      <RegionField country={place.country} value={region} onChange={setRegion} />
      <p className="quiet">With another region, its documents on no sealed return are worked out anew.</p>
    </FormDialog>
  );
}

export function ClosePlace({
  place,
  client,
  onClose,
}: {
  place: ClientView["places"][number];
  client: ClientView;
  onClose: () => void;
}) {
  const packs = usePacks();
  const queries = useQueryClient();
  const [day, setDay] = useState(place.closedOn ?? today());
  const opening = place.closedOn !== null;
  const save = useMutation({
    mutationFn: () => api.put(`/clients/${client.id}/places/${place.id}`, { closedOn: opening ? null : day }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client.id) });
      onClose();
    },
  });
  const others = client.places.filter((one) => one.id !== place.id);
  const [fewer, full] = [
    askedOf(others, client, packs),
    askedOf([...others, { ...place, closedOn: null }], client, packs),
  ];
  const gone = full.filter(
    (one) => !fewer.some((left) => left.levy === one.levy && left.country === one.country),
  );
  return (
    <FormDialog
      title={opening ? `Open ${place.name} again` : `Close ${place.name}`}
      action={opening ? "Open again" : "Close place"}
      className="grid gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      {!opening && <DateField label="First day closed" value={day} onChange={setDay} className="w-full" />}
      <Changes
        title={opening ? "Contacts are asked again" : "Contacts are not asked any more"}
        rows={gone.map(({ name: levy, reason }) => `${levy}, ${reason}`)}
      />
      <p className="quiet">Documents and registrations stay as they are; end a registration by itself.</p>
    </FormDialog>
  );
}

type SitesOf = Parameters<typeof standingsAsked>[0];

function askedOf(sites: SitesOf, client: ClientView, packs: Packs) {
  return standingsAsked(sites, client.registrations, today(), packs);
}

function Changes({ title, rows }: { title: string; rows: readonly string[] }) {
  if (rows.length === 0) return null;
  return (
    <div className="note-row text-[13px]">
      <p className="font-semibold">{title}:</p>
      <ul>
        {rows.map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
    </div>
  );
}

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
  const queries = useQueryClient();
  const [packId, setPackId] = useState(
    proposal?.pack ?? packs.ofCountry(client.country)?.id ?? at(packs.all, 0).id,
  );
  const pack = packs.byId(packId);
  const [draft, setDraft] = useState({
    ...blankRegistration(pack),
    ...(proposal ? { levies: proposal.levies } : {}),
  });
  const numberCheck = useNumberCheck(pack, draft.number);
  const save = useMutation({
    mutationFn: () => api.post(`/clients/${client.id}/registrations`, registrationBody(pack, draft)),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client.id) });
      onClose();
    },
  });
  const field = (path: string) =>
    save.error instanceof ApiError && `registration.${save.error.field?.replace(/^\./, "")}` === path
      ? save.error.message
      : undefined;
  return (
    <FormDialog
      title="Add a registration"
      action="Add registration"
      wide
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      {!proposal && (
        <SelectField
          className="mb-4"
          label="Jurisdiction"
          value={packId}
          onChange={(event) => {
            setPackId(event.target.value);
            setDraft(blankRegistration(packs.byId(event.target.value)));
          }}
        >
          {packs.all.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {proposal && (
        <p className="note-row mb-4">
          For {proposal.levies.join(", ")}. {proposal.why}
        </p>
      )}
      <RegistrationFields
        pack={pack}
        value={draft}
        onChange={setDraft}
        error={field}
        numberCheck={numberCheck}
      />
      <p className="quiet mt-2">
        Documents from that day on that waited for a registration are counted by themselves.
      </p>
    </FormDialog>
  );
}
