import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import clsx from "clsx";
import { useNavigate } from "react-router";
import type { StatementKindView } from "@fiscalon/contract/statements";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { useContacts } from "../../../app/records.ts";
import { useScope } from "../../../app/scope.ts";
import { Combo } from "../../../kit/Combo.tsx";
import { Dialog, DialogActions } from "../../../kit/Dialog.tsx";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { SelectField } from "../../../kit/Field.tsx";
import { showPeriod } from "../../../kit/format.ts";

export const STATEMENTS = "/clients/:id/registrations/:rid/statements";

/** Asks what a list is and of whom, and takes its file in. */
export function DropStatement({
  kinds,
  onClose,
}: {
  kinds: readonly StatementKindView[];
  onClose: () => void;
}) {
  const { client, registration, period, periods, path } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [kindId, setKindId] = useState(kinds[0]?.id ?? "");
  const [contact, setContact] = useState("");
  const [chosenEnd, setEnd] = useState<string | null>(null);
  const end = chosenEnd ?? period?.to ?? "";
  const kind = kinds.find(({ id }) => id === kindId);
  const ofParty = kind?.of === "party";
  const [search, setSearch] = useState("");
  const { data: contacts } = useContacts(search);
  const receive = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return api.post(STATEMENTS, [client?.id, registration?.id], form, {
        kind: kindId,
        period: end,
        contact: ofParty && contact !== "" ? Number(contact) : undefined,
      });
    },
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      await navigate(path(`agree/statements/${id}`));
    },
  });
  const ready = end !== "" && (!ofParty || contact !== "");
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    noKeyboard: true,
    multiple: false,
    disabled: !ready || receive.isPending,
    onDropAccepted: ([file]) => file && receive.mutate(file),
  });
  return (
    <Dialog open title="Bring in a statement" onClose={onClose}>
      <div className="grid gap-4">
        <SelectField label="What it is" value={kindId} onChange={({ target }) => setKindId(target.value)}>
          {kinds.map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </SelectField>
        <p className="quiet">{kind?.lead}</p>
        {ofParty && (
          <Combo
            label={kind.direction === "purchase" ? "Supplier" : "Customer"}
            value={contact}
            choices={(contacts ?? []).map(({ id, name, taxNumber }) => ({
              value: String(id),
              label: name,
              ...(taxNumber ? { detail: taxNumber } : {}),
            }))}
            onSearch={setSearch}
            onChange={setContact}
          />
        )}
        <SelectField label="Of the period" value={end} onChange={({ target }) => setEnd(target.value)}>
          {periods
            .filter(({ state }) => state !== "ahead")
            .map((one) => (
              <option key={one.to} value={one.to}>
                {showPeriod(one.from, one.to)}
              </option>
            ))}
        </SelectField>
        <div
          {...getRootProps({ role: "group", tabIndex: -1, "aria-label": "File" })}
          className={clsx(
            "border border-dashed p-5 text-center",
            isDragActive ? "border-primary bg-accent" : "border-secondary",
          )}
        >
          <input {...getInputProps({ "aria-label": "Statement file" })} />
          <p className="mb-2">
            {receive.isPending ? "Reading …" : ready ? "Drop the file here" : "Say whose it is first"}
          </p>
          <button type="button" className="action" onClick={open} disabled={!ready || receive.isPending}>
            Choose a file
          </button>
        </div>
        <ErrorNote error={receive.error} />
      </div>
      <DialogActions>
        <button type="button" className="action" onClick={onClose}>
          Cancel
        </button>
      </DialogActions>
    </Dialog>
  );
}
