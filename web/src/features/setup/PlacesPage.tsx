import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import type { Packs } from "@fiscalon/core/model/packs";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { rhythmInWords } from "@fiscalon/core/calendar/rhythmInWords";
import { schemesOf } from "@fiscalon/core/model/scheme";
import { optionsFor, optionsOn } from "@fiscalon/core/model/registration";
import { basisOffer, basisOn } from "@fiscalon/core/model/basis";
import { proposedRegistrations } from "@fiscalon/core/supply/proposeSetup";
import type { ProposedRegistration } from "@fiscalon/core/supply/proposeSetup";
import type { AgencyPosition, ClientView, RegistrationView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showPeriod, today } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { ChangeRegistration } from "./ChangeRegistration.tsx";
import { AddRegistration } from "../../records/AddRegistration.tsx";
import { AddPlace, ChangePlace, ClosePlace } from "../../records/PlaceDialogs.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { Tip } from "../../kit/Tip.tsx";

type Place = ClientView["places"][number];
type Open =
  | { kind: "place" }
  | { kind: "registration"; proposal: ProposedRegistration | null }
  | { kind: "change"; registration: RegistrationView }
  | { kind: "close" | "change-place"; place: Place };

/** Where the business is, which levies that brings, and how it is registered for them. */
export function PlacesPage() {
  const { client } = useScope();
  const [open, setOpen] = useState<Open | null>(null);
  const { data: positions } = useQuery({
    queryKey: keys.of(client?.id, "positions"),
    queryFn: ({ signal }) => api.get("/clients/:id/positions", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  if (!client) return <Waiting what="the places" />;
  const close = () => setOpen(null);
  return (
    <Sheet
      title="Places & registrations"
      actions={
        <>
          <a className="action" href={`/api/clients/${client.id}/book`} download>
            Export book file
          </a>
          <button type="button" className="action" onClick={() => setOpen({ kind: "place" })}>
            Add place
          </button>
          <button
            type="button"
            className={client.registrations.length === 0 ? "action main" : "action"}
            onClick={() => setOpen({ kind: "registration", proposal: null })}
          >
            Add registration
          </button>
        </>
      }
    >
      <section className="mb-6" aria-label="Places">
        <h2 className="mb-1">Places, and the levies charged there</h2>
        {client.places.length === 0 && <p className="quiet">No place yet. It decides which levies matter.</p>}
        {client.places.length > 0 && (
          <table className="sheet-table max-w-4xl">
            <thead>
              <tr>
                <th>Place</th>
                <th>Country and region</th>
                <th>Levies</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {client.places.map((place) => (
                <PlaceRow key={place.id} place={place} client={client} onOpen={setOpen} />
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section aria-label="Registrations">
        <h2 className="mb-1">Registrations</h2>
        {client.registrations.length === 0 && (
          <p className="note-row max-w-2xl">
            {client.name} is not registered. Documents can be entered, but are on no return, and tax charged
            on sales would be charged without right.
          </p>
        )}
        {client.registrations.map((registration) => (
          <Registration
            key={registration.id}
            registration={registration}
            client={client}
            position={positions?.find((one) => one.registration === registration.id)}
            onChange={() => setOpen({ kind: "change", registration })}
          />
        ))}
      </section>
      {open?.kind === "place" && <AddPlace client={client} onClose={close} />}
      {open?.kind === "registration" && (
        <AddRegistration client={client} proposal={open.proposal} onClose={close} />
      )}
      {open?.kind === "change" && <ChangeRegistration registration={open.registration} onClose={close} />}
      {open?.kind === "change-place" && <ChangePlace place={open.place} client={client} onClose={close} />}
      {open?.kind === "close" && <ClosePlace place={open.place} client={client} onClose={close} />}
    </Sheet>
  );
}

/** A place with each levy that is charged there: registered for it, or perhaps to be, with the reason. */
function PlaceRow({
  place,
  client,
  onOpen,
}: {
  place: Place;
  client: ClientView;
  onOpen: (open: Open) => void;
}) {
  const packs = usePacks();
  const pack = packs.ofCountry(place.country);
  const region = pack?.regions?.find((one) => one.code === place.region)?.name ?? place.region;
  const proposals = pack ? proposedRegistrations(pack, place.region ?? "", { activity: "" }) : [];
  const closed = place.closedOn !== null && place.closedOn <= today();
  return (
    <tr className={closed ? "quiet" : ""}>
      <td className="font-semibold">
        {place.name}
        {place.closedOn && (
          <span className="quiet block text-[12px]">closed on {displayDate(place.closedOn)}</span>
        )}
      </td>
      <td>{[pack?.name ?? place.country, region].filter(Boolean).join(", ")}</td>
      <td>
        {!pack && <span className="quiet">No pack for {place.country}; make one under Jurisdictions.</span>}
        {proposals.map((proposal) => {
          const registration = client.registrations.find(
            (r) =>
              packs.byId(r.pack).id === proposal.pack &&
              r.levies.includes(proposal.levies[0] ?? "") &&
              r.to === null,
          );
          return (
            <span key={proposal.name} className="block py-0.5">
              {registration ? (
                <Tip className="text-success" words={proposal.why}>
                  ✓ {proposal.name}
                </Tip>
              ) : (
                <>
                  {proposal.name}: <span className="quiet">{proposal.why}</span>{" "}
                  <button
                    type="button"
                    className="word-link"
                    onClick={() => onOpen({ kind: "registration", proposal })}
                  >
                    Register
                  </button>
                </>
              )}
            </span>
          );
        })}
      </td>
      <td>
        <button
          type="button"
          className="word-link mr-3"
          onClick={() => onOpen({ kind: "change-place", place })}
        >
          Change
        </button>
        <button type="button" className="word-link" onClick={() => onOpen({ kind: "close", place })}>
          {place.closedOn ? "Open again" : "Close"}
        </button>
      </td>
    </tr>
  );
}

/** One agency: its number, rhythm, basis, and what is due to it now and building up. */
function Registration({
  registration,
  client,
  position,
  onChange,
}: {
  registration: RegistrationView;
  client: ClientView;
  position: AgencyPosition | undefined;
  onChange: () => void;
}) {
  const packs = usePacks();
  const pack = packs.byId(registration.pack);
  const chosen = optionsOn(pack, registration, today());
  const options = optionsFor(pack, registration.levies).map(({ id, name, values }) => {
    const value = chosen[id];
    return `${name}: ${values.find((one) => one.value === value)?.name ?? value}`;
  });
  const region = pack.regions?.find(({ code }) => code === registration.region);
  const schemes = registration.schemes.filter(({ to }) => to === null || to >= today());
  const rows = [
    [capital(registration.numberName), registration.number ?? "applied for", true],
    ...(region === undefined ? [] : [["For", region.name] as const]),
    [
      "In force",
      `${displayDate(registration.from)}${registration.to ? ` to ${displayDate(registration.to)}` : " on"}`,
    ],
    [
      "Filing periods",
      [
        registration.rhythm,
        ...registration.changes.map(
          (one) => `${rhythmInWords(one.frequency, one.anchor)} from ${displayDate(one.from)}`,
        ),
      ].join("; "),
    ],
    ["Basis", basisOffer(pack.bases, basisOn(registration, today())).name],
    ["Rounding", roundingName(packs, registration)],
    ...schemes.map((one) => [
      "Special scheme",
      `${schemesOf(pack).find(({ id }) => id === one.scheme)?.name ?? one.scheme} from ${displayDate(one.from)}${one.to === null ? " on" : ` to ${displayDate(one.to)}`}`,
    ]),
    ...(options.length > 0 ? [["Choices", options.join("; ")]] : []),
  ] as [string, string, boolean?][];
  const authority =
    pack.levies.find((one) => one.levy === registration.levies[0])?.authority ?? registration.authority;
  return (
    <div className="mb-5 grid max-w-4xl grid-cols-[1fr_370px] gap-6 border-t border-base-content pt-2">
      <div>
        <p className="flex items-baseline gap-3">
          <span className="font-semibold">{packs.levyNames(registration.levies)}</span>
          <span className="quiet">{authority}</span>
          <button type="button" className="word-link ml-auto" onClick={onChange}>
            Change
          </button>
        </p>
        <dl className="mt-1 grid grid-cols-[176px_1fr]">
          {rows.map(([term, value, mono]) => (
            <div key={`${term}/${value}`} className="contents">
              <dt className="quiet border-b border-base-300 py-1.5">{term}</dt>
              <dd className={`border-b border-base-300 py-1.5 ${mono ? "font-mono" : ""}`}>{value}</dd>
            </div>
          ))}
        </dl>
      </div>
      <Position registration={registration} position={position} digits={client.digits} />
    </div>
  );
}

const SHOWN = 5;

function Position({
  registration,
  position,
  digits,
}: {
  registration: RegistrationView;
  position: AgencyPosition | undefined;
  digits: number;
}) {
  if (!position) return null;
  const rows = [
    ...position.due.map((one) => ({ ...one, what: one.due < today() ? "overdue" : "due" })),
    ...(position.running ? [{ ...position.running, what: "builds up" }] : []),
  ];
  const earlier = Math.max(0, rows.length - SHOWN);
  return (
    <table className="sheet-table self-start">
      <thead>
        <tr>
          <th>Period</th>
          <th />
          <th className="num">Net</th>
        </tr>
      </thead>
      <tbody>
        {earlier > 0 && (
          <tr>
            <td colSpan={3} className="font-semibold text-error">
              {plural(earlier, "earlier period")} overdue
            </td>
          </tr>
        )}
        {rows.slice(-SHOWN).map((row) => (
          <tr key={row.to}>
            <td className="whitespace-nowrap">{showPeriod(row.from, row.to)}</td>
            <td className={row.what === "overdue" ? "font-semibold text-error" : "quiet"}>
              {row.what === "builds up" ? row.what : `${row.what} ${displayDate(row.due)}`}
            </td>
            <td className="num">
              <Figure
                amount={row.net}
                digits={digits}
                dash
                of={row.net === 0 ? null : `position/${registration.id}/${row.to}/net`}
                label={`Net of the period to ${displayDate(row.to)}`}
              />
            </td>
          </tr>
        ))}
        {rows.length === 0 && (
          <tr>
            <td colSpan={3} className="quiet">
              Nothing due, no period running.
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function roundingName(packs: Packs, { pack, rounding }: RegistrationView): string {
  const known = packs.byId(pack).roundings.find((one) => sameRounding(one.rounding, rounding));
  return known?.name ?? `by ${rounding.level}, ${rounding.mode}`;
}

function sameRounding(a: RegistrationView["rounding"], b: RegistrationView["rounding"]): boolean {
  return a.level === b.level && a.mode === b.mode && a.lineStep === b.lineStep && a.combined === b.combined;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
