import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { DefaultDialog } from "./DefaultDialog.tsx";

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
  /** Lines of documents that bear it; not known yet while they are counted. */
  lines: number | undefined;
  onEdit: () => void;
  onChoose: (code: string) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [defaulting, setDefaulting] = useState(false);
  const done = () => queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const archive = useMutation({
    mutationFn: () =>
      api.post(
        "/clients/:id/codes/:code/archive",
        [client?.id, code.code],
        { archived: !archived },
        {},
        seenOf(code),
      ),
    onSettled: done,
  });
  const remove = useMutation({
    mutationFn: () => api.delete("/clients/:id/codes/:code", [client?.id, code.code], {}, seenOf(code)),
    onSettled: done,
  });
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
        {lines !== 0 || archived ? (
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
