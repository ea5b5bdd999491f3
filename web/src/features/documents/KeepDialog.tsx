import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { addMonths } from "@fiscalon/core/calendar/date";
import { RHYTHMS } from "@fiscalon/contract/templates";
import type { Rhythm } from "@fiscalon/contract/templates";
import type { DocumentBody } from "@fiscalon/contract/document";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";

/** Keeps a document under a name, to be used again or to be posted in a rhythm. */
export function KeepDialog({ document, onClose }: { document: DocumentBody; onClose: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [name, setName] = useState(document.lines[0]?.text ?? "");
  const [every, setEvery] = useState<Rhythm | "">("");
  const [nextOn, setNextOn] = useState(addMonths(document.date, 1));
  const [until, setUntil] = useState("");
  const [byItself, setByItself] = useState(true);
  const keep = useMutation({
    mutationFn: () =>
      api.put(`/clients/${client?.id}/templates`, {
        name,
        document: { ...document, number: "" },
        every: every || null,
        nextOn: every ? nextOn : null,
        until: every && until ? until : null,
        byItself: every !== "" && byItself,
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "templates") });
      onClose();
    },
  });
  return (
    <FormDialog
      title="Keep to use again"
      action="Keep"
      className="grid grid-cols-2 gap-4"
      error={keep.error}
      onClose={onClose}
      onSubmit={() => keep.mutate()}
    >
      <Field
        className="col-span-2"
        label="Name"
        value={name}
        required
        hint="The same name again replaces what was kept under it."
        onChange={(event) => setName(event.target.value)}
      />
      <SelectField
        className="col-span-2"
        label="Rhythm"
        value={every}
        onChange={(event) => setEvery(event.target.value as Rhythm | "")}
      >
        <option value="">only when it is asked for</option>
        {Object.entries(RHYTHMS).map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </SelectField>
      {every !== "" && (
        <>
          <DateField label="Next on" value={nextOn} onChange={setNextOn} className="w-full" />
          <DateField label="Until" value={until} onChange={setUntil} optional className="w-full" />
          <label className="col-span-2 flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={byItself}
              onChange={(event) => setByItself(event.target.checked)}
            />
            Post it by itself on the day; otherwise it waits under Kept and recurring
          </label>
        </>
      )}
    </FormDialog>
  );
}
