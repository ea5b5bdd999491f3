import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { ClientBody } from "@fiscalon/contract/setup";
import type { ClientView } from "@fiscalon/contract/views";
import { packById } from "@fiscalon/core/jurisdictions/packs";
import { api, ApiError } from "../../kit/api.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Field } from "../../kit/Field.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import {
  RegistrationFields,
  blankRegistration,
  registrationBody,
  useNumberCheck,
} from "../setup/RegistrationFields.tsx";

/** First set-up of a client: who it is, where, and how it is registered. */
export function NewClientPage() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const pack = packById("gb");
  const [name, setName] = useState("");
  const [place, setPlace] = useState("");
  const [registered, setRegistered] = useState(true);
  const [registration, setRegistration] = useState(blankRegistration(pack));
  const numberCheck = useNumberCheck(pack, registration.number);
  const create = useMutation({
    mutationFn: () => {
      const body: ClientBody = {
        name,
        country: pack.country,
        ...(place === "" ? {} : { place: { name: place, country: pack.country } }),
        ...(registered ? { registration: registrationBody(pack, registration) } : {}),
      };
      return api.post<ClientView>("/clients", body);
    },
    onSuccess: async (client) => {
      await queries.invalidateQueries({ queryKey: ["clients"] });
      await navigate(`/c/${client.id}/setup/places`);
    },
  });
  const field = (path: string) =>
    create.error instanceof ApiError && create.error.field === path ? create.error.message : undefined;
  return (
    <Sheet
      title="New client"
      lead={`Codes and accounts of the ${pack.name} are set up by themselves, and can be changed afterwards.`}
    >
      <form
        className="grid max-w-2xl gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          create.mutate();
        }}
      >
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
        </div>
        <fieldset>
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={registered}
              onChange={(event) => setRegistered(event.target.checked)}
            />
            Registered for VAT
          </label>
          {!registered && (
            <p className="quiet mt-1">
              Documents can be entered all the same; Fiscalon says that they are on no return until a
              registration is added.
            </p>
          )}
        </fieldset>
        {registered && (
          <RegistrationFields
            pack={pack}
            value={registration}
            onChange={setRegistration}
            error={field}
            numberCheck={numberCheck}
          />
        )}
        <ErrorNote error={create.error instanceof ApiError && create.error.field ? null : create.error} />
        <div className="flex gap-2">
          <button type="submit" className="action main" disabled={create.isPending}>
            Create client
          </button>
          <button type="button" className="action" onClick={() => void navigate("/")}>
            Cancel
          </button>
        </div>
      </form>
    </Sheet>
  );
}
