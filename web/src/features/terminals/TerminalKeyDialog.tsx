import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { TerminalView } from "@fiscalon/contract/terminals";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../api/client.ts";
import { Field } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";

/** Asks the operator for a new token, after the books came with a book file or the key was changed. */
export function TerminalKeyDialog({ terminal, onClose }: { terminal: TerminalView; onClose: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [key, setKey] = useState("");
  const give = useMutation({
    mutationFn: () => api.put(`/clients/${client?.id}/terminals/${terminal.id}/key`, { key }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "terminals") });
      onClose();
    },
  });
  const wrong = give.error instanceof ApiError ? give.error : null;
  return (
    <FormDialog
      title={`Key of ${terminal.name}, merchant ${terminal.merchant}`}
      action={give.isPending ? "Asking the operator …" : "Authorise"}
      error={wrong?.field ? null : give.error}
      onClose={onClose}
      onSubmit={() => give.mutate()}
    >
      <Field
        label="Key of the operator"
        value={key}
        required
        hint="From the operator’s pages; only a token is kept."
        error={wrong?.field === "key" ? wrong.message : undefined}
        onChange={(event) => setKey(event.target.value)}
      />
    </FormDialog>
  );
}
