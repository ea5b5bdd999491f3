import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";

/** What can be done with the chosen code: change, make default, archive, delete; and which member is on the bench. */
export function CodeActions({
  code,
  shown,
  archived,
  lines,
  onEdit,
  onChoose,
}: {
  code: TaxCode;
  shown: string;
  archived: boolean;
  lines: number;
  onEdit: () => void;
  onChoose: (code: string) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [defaulting, setDefaulting] = useState(false);
  const path = `/clients/${client?.id}/codes/${encodeURIComponent(code.code)}`;
  const done = () => queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const archive = useMutation({
    mutationFn: () => api.post(`${path}/archive`, { archived: !archived }),
    onSuccess: done,
  });
  const remove = useMutation({ mutationFn: () => api.delete(path), onSuccess: done });
  const members = expandCode(code);
  return (
    <div className="border-b border-base-300 px-4 py-2">
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        <button type="button" className="word-link" onClick={onEdit}>
          Change
        </button>
        <button type="button" className="word-link" onClick={() => setDefaulting(true)}>
          Make default
        </button>
        {lines > 0 || archived ? (
          <button type="button" className="word-link" onClick={() => archive.mutate()}>
            {archived ? "Take back" : "Archive"}
          </button>
        ) : (
          <button type="button" className="word-link" onClick={() => remove.mutate()}>
            Delete
          </button>
        )}
        {members.length > 1 && (
          <select
            aria-label="Member of the family"
            className="entry ml-auto !min-h-0 max-w-[120px] !py-0 font-mono"
            value={members.some((one) => one.code === shown) ? shown : (members[0]?.code ?? "")}
            onChange={(event) => onChoose(event.target.value)}
          >
            {members.map((one) => (
              <option key={one.code} value={one.code}>
                {one.code}
              </option>
            ))}
          </select>
        )}
      </div>
      <ErrorNote error={archive.error ?? remove.error} />
      {defaulting && (
        <DefaultDialog code={shown} direction={code.direction} onClose={() => setDefaulting(false)} />
      )}
    </div>
  );
}

/** "Make this code the default of": existing items, new items, all items; of the business or of one place. */
function DefaultDialog({
  code,
  direction,
  onClose,
}: {
  code: string;
  direction: TaxCode["direction"];
  onClose: () => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [side, setSide] = useState(direction === "purchase" ? "purchase" : "sale");
  const [scope, setScope] = useState("new");
  const [place, setPlace] = useState("");
  const save = useMutation({
    mutationFn: () =>
      api.post<{ items: number }>(`/clients/${client?.id}/codes/${encodeURIComponent(code)}/default`, {
        side,
        scope,
        place: place === "" ? null : Number(place),
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  return (
    <FormDialog
      title={`Make ${code} the default`}
      action="Make default"
      className="grid gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      {direction === "both" && (
        <SelectField label="On" value={side} onChange={(event) => setSide(event.target.value)}>
          <option value="sale">sales</option>
          <option value="purchase">purchases</option>
        </SelectField>
      )}
      <SelectField
        label="For"
        value={scope}
        onChange={(event) => setScope(event.target.value)}
        hint="Items that exist get it as their own code; new ones take it from the business or the place."
      >
        <option value="new">new items, and lines without an item</option>
        <option value="existing">existing items</option>
        <option value="all">all items</option>
      </SelectField>
      <SelectField label="Of which place" value={place} onChange={(event) => setPlace(event.target.value)}>
        <option value="">the whole business</option>
        {client?.places.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </SelectField>
    </FormDialog>
  );
}
