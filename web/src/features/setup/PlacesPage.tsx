import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { packById, packOfCountry } from "@fiscalon/core/jurisdictions/packs";
import type { ClientView, RegistrationView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../kit/api.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field } from "../../kit/Field.tsx";
import { showDate } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import {
  blankRegistration,
  RegistrationFields,
  registrationBody,
  useNumberCheck,
} from "./RegistrationFields.tsx";

/** Where the business is, and where it is registered. */
export function PlacesPage() {
  const { client } = useScope();
  const [adding, setAdding] = useState<"place" | "registration" | null>(null);
  if (!client) return null;
  return (
    <Sheet
      title="Places & registrations"
      actions={
        <>
          <a className="action" href={`/api/clients/${client.id}/book`} download>
            Export book file
          </a>
          <button type="button" className="action" onClick={() => setAdding("place")}>
            Add place
          </button>
          <button
            type="button"
            className={client.registrations.length === 0 ? "action main" : "action"}
            onClick={() => setAdding("registration")}
          >
            Add registration
          </button>
        </>
      }
    >
      <section className="mb-6">
        <h2 className="mb-1">Places</h2>
        {client.places.length === 0 && <p className="quiet">No place yet. It decides which levies matter.</p>}
        {client.places.length > 0 && (
          <table className="sheet-table max-w-2xl">
            <thead>
              <tr>
                <th>Place</th>
                <th>Country</th>
                <th>Region</th>
              </tr>
            </thead>
            <tbody>
              {client.places.map((place) => (
                <tr key={place.id}>
                  <td className="font-semibold">{place.name}</td>
                  <td>{place.country}</td>
                  <td className="quiet">{place.region ?? "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section>
        <h2 className="mb-1">Registrations</h2>
        {client.registrations.length === 0 && (
          <p className="note-row max-w-2xl">
            {client.name} is not registered. Documents can be entered, but are on no return, and tax charged
            on sales would be charged without right.
          </p>
        )}
        {client.registrations.map((registration) => (
          <Registration key={registration.id} registration={registration} />
        ))}
      </section>
      <AddPlace open={adding === "place"} onClose={() => setAdding(null)} client={client} />
      <AddRegistration open={adding === "registration"} onClose={() => setAdding(null)} client={client} />
    </Sheet>
  );
}

function Registration({ registration }: { registration: RegistrationView }) {
  const rows = [
    [registration.numberName, registration.number ?? "applied for", true],
    ["Authority", registration.authority],
    [
      "In force",
      `${showDate(registration.from)}${registration.to ? ` to ${showDate(registration.to)}` : " on"}`,
    ],
    ["Filing periods", registration.rhythm],
    ["Basis", registration.basis],
    ["Rounding", roundingName(registration)],
  ] as [string, string, boolean?][];
  return (
    <div className="mb-4 max-w-2xl border-t border-base-content pt-2">
      <p className="font-semibold">
        {registration.levies.join(", ")}, {registration.packName}
      </p>
      <dl className="mt-1 grid grid-cols-[180px_1fr]">
        {rows.map(([term, value, mono]) => (
          <div key={term} className="contents">
            <dt className="quiet border-b border-base-300 py-1.5">{term}</dt>
            <dd className={`border-b border-base-300 py-1.5 ${mono ? "font-mono" : ""}`}>{value}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

function roundingName({ pack, rounding }: RegistrationView): string {
  const known = packById(pack).roundings.find((one) => sameRounding(one.rounding, rounding));
  return known?.name ?? `by ${rounding.level}, ${rounding.mode}`;
}

function sameRounding(a: RegistrationView["rounding"], b: RegistrationView["rounding"]): boolean {
  return a.level === b.level && a.mode === b.mode && a.lineStep === b.lineStep;
}

function AddPlace({ open, onClose, client }: { open: boolean; onClose: () => void; client: ClientView }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [region, setRegion] = useState("");
  const save = useMutation({
    mutationFn: () =>
      api.post(`/clients/${client.id}/places`, { name, country: client.country, region: region || null }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["client", client.id] });
      setName("");
      onClose();
    },
  });
  return (
    <FormDialog
      open={open}
      title="Add a place"
      action="Add place"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field label="Name" value={name} onChange={(event) => setName(event.target.value)} required autoFocus />
      <Field
        className="mt-3"
        label="Region"
        value={region}
        onChange={(event) => setRegion(event.target.value)}
        hint="NIR for Northern Ireland; otherwise not needed in the United Kingdom"
      />
    </FormDialog>
  );
}

function AddRegistration({
  open,
  onClose,
  client,
}: {
  open: boolean;
  onClose: () => void;
  client: ClientView;
}) {
  const queries = useQueryClient();
  const pack = packOfCountry(client.country) ?? packById("gb");
  const [draft, setDraft] = useState(blankRegistration(pack));
  const numberCheck = useNumberCheck(pack, draft.number);
  const save = useMutation({
    mutationFn: () => api.post(`/clients/${client.id}/registrations`, registrationBody(pack, draft)),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["client", client.id] });
      onClose();
    },
  });
  const field = (path: string) =>
    save.error instanceof ApiError && `registration.${save.error.field?.replace(/^\./, "")}` === path
      ? save.error.message
      : undefined;
  return (
    <FormDialog
      open={open}
      title="Add a registration"
      action="Add registration"
      wide
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
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
