import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { useScope } from "../app/scope.ts";
import { api, ApiError } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { overtakenBy } from "../kit/overtaken.ts";
import { OvertakenDialog } from "../kit/OvertakenDialog.tsx";
import { FormDialog } from "../kit/FormDialog.tsx";
import { blankCode, CodeForm } from "./CodeForm.tsx";

/** Makes or changes a code of the client. */
export function CodeEditor({
  code,
  named = "",
  setup,
  onClose,
  onDone = onClose,
}: {
  code: TaxCode | null;
  /** What a new one is to be called. */
  named?: string;
  setup: PlainSetup;
  onClose: () => void;
  onDone?: (code: string) => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const queries = useQueryClient();
  const packId = setup.registrations[0]?.pack ?? (client ? packs.ofCountry(client.country)?.id : undefined);
  const [draft, setDraft] = useState<TaxCode>(
    code ?? { ...blankCode(), code: named, ...(packId === undefined ? {} : { pack: packId }) },
  );
  const levies = packId === undefined ? [] : packs.byId(draft.pack ?? packId).levies.map(({ levy }) => levy);
  const [seen] = useState(seenOf(code));
  const save = useMutation({
    mutationFn: (upTo: number | undefined) => {
      return code
        ? api.put("/clients/:id/codes/:code", [client?.id, code.code], draft, upTo)
        : api.post("/clients/:id/codes", [client?.id], draft);
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onDone(draft.code);
    },
  });
  const overtaken = overtakenBy(save.error);
  const error = (path: string) =>
    save.error instanceof ApiError && save.error.field === path ? save.error.message : undefined;
  return (
    <FormDialog
      title={code ? `Change ${code.code}` : "New code"}
      action={code ? "Save" : "Make code"}
      wide
      error={overtaken ? null : save.error}
      onClose={onClose}
      onSubmit={() => save.mutate(seen)}
    >
      <CodeForm draft={draft} levies={levies} schedules={setup.schedules} error={error} onChange={setDraft} />
      {overtaken && (
        <OvertakenDialog
          of={overtaken}
          yours={draft}
          onKeepMine={() => save.mutate(overtaken.entry)}
          onTakeTheirs={() => {
            void queries.invalidateQueries({ queryKey: keys.client(client?.id) });
            onClose();
          }}
        />
      )}
    </FormDialog>
  );
}
