import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";

/** Makes and changes codes from a CSV file in the shape of the export, all or nothing. */
export function CodesImport({ onClose }: { onClose: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [csv, setCsv] = useState("");
  const read = useMutation({
    mutationFn: () => api.post("/clients/:id/codes/import", [client?.id], { csv }),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  return (
    <FormDialog
      title="Import codes"
      action={read.data ? "Import again" : "Import"}
      error={read.error}
      onClose={onClose}
      onSubmit={() => read.mutate()}
    >
      <label className="field-label" htmlFor="codes-file">
        CSV file, as “Export CSV” writes it
      </label>
      <input
        id="codes-file"
        type="file"
        accept=".csv,text/csv"
        className="entry"
        required
        onChange={(event) => {
          void event.target.files?.[0]?.text().then(setCsv);
        }}
      />
      <p className="quiet mt-2">
        A code that is there already is changed, others are made. One row that does not fit stops all of it.
      </p>
      {read.data && (
        <p role="status" className="note-row mt-3">
          {read.data.created} made, {read.data.changed} changed.
        </p>
      )}
    </FormDialog>
  );
}
