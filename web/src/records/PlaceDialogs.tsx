import { useWatch } from "react-hook-form";
import type { Packs } from "@fiscalon/core/model/packs";
import { standingsAsked } from "@fiscalon/core/supply/standingsAsked";
import { placeBody, placeChangeBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { api } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { today } from "../kit/format.ts";
import { DayField, TextField } from "../kit/formFields.tsx";
import { useBodyForm } from "../kit/useBodyForm.ts";
import { CountryField, RegionField } from "./placeFields.tsx";

/** Another place of business, and what contacts are asked from then on. */
export function AddPlace({ client, onClose }: { client: ClientView; onClose: () => void }) {
  const packs = usePacks();
  const dialog = useBodyForm({
    values: { name: "", country: client.country, region: "" },
    schema: placeBody,
    body: (typed) => ({ ...typed, region: typed.region || null }),
    send: (body) => api.post("/clients/:id/places", [client.id], body),
    refresh: keys.client(client.id),
    onSaved: onClose,
  });
  const { control, setValue } = dialog.form;
  const [name, country, region] = useWatch({ control, name: ["name", "country", "region"] });
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
    <BodyDialog of={dialog} title="Add a place" action="Add place" className="grid gap-4" onClose={onClose}>
      <TextField name="name" label="Name" />
      <div className="grid grid-cols-2 gap-4">
        <CountryField
          value={country}
          onChange={(next) => {
            setValue("country", next);
            setValue("region", "");
          }}
        />
        <RegionField country={country} value={region} onChange={(next) => setValue("region", next)} />
      </div>
      <Changes
        title="From then on contacts are also asked"
        rows={more.map(({ name: levy, reason }) => `${levy}, ${reason}`)}
      />
      <p className="quiet">The registrations it may need are proposed beside the place, with the reason.</p>
    </BodyDialog>
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
  const dialog = useBodyForm({
    values: { name: place.name, region: place.region ?? "" },
    schema: placeChangeBody,
    body: ({ name, region }) => ({ name, region: region || null }),
    seen: seenOf(place),
    send: (body, _typed, seen) => api.put("/clients/:id/places/:own", [client.id, place.id], body, seen),
    refresh: keys.client(client.id),
    onSaved: onClose,
  });
  const { control, setValue } = dialog.form;
  const region = useWatch({ control, name: "region" });
  return (
    <BodyDialog
      of={dialog}
      title={`Change ${place.name}`}
      action="Save"
      className="grid gap-4"
      onClose={onClose}
    >
      <TextField name="name" label="Name" />
      <RegionField country={place.country} value={region} onChange={(next) => setValue("region", next)} />
      <p className="quiet">With another region, its documents on no sealed return are worked out anew.</p>
    </BodyDialog>
  );
}

/** Closes a place, or opens it again, and says which questions to contacts go or come back with it. */
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
  const opening = place.closedOn !== null;
  const dialog = useBodyForm({
    values: { closedOn: place.closedOn ?? today() },
    schema: placeChangeBody,
    body: ({ closedOn }) => ({ closedOn: opening ? null : closedOn }),
    seen: seenOf(place),
    send: (body, _typed, seen) => api.put("/clients/:id/places/:own", [client.id, place.id], body, seen),
    refresh: keys.client(client.id),
    onSaved: onClose,
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
    <BodyDialog
      of={dialog}
      title={opening ? `Open ${place.name} again` : `Close ${place.name}`}
      action={opening ? "Open again" : "Close place"}
      className="grid gap-4"
      onClose={onClose}
    >
      {!opening && <DayField name="closedOn" label="First day closed" />}
      <Changes
        title={opening ? "Contacts are asked again" : "Contacts are not asked any more"}
        rows={gone.map(({ name: levy, reason }) => `${levy}, ${reason}`)}
      />
      <p className="quiet">Documents and registrations stay as they are; end a registration by itself.</p>
    </BodyDialog>
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
