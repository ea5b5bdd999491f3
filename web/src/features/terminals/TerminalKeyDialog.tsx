import { terminalKeyBody } from "@fiscalon/contract/terminals";
import type { TerminalView } from "@fiscalon/contract/terminals";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** Asks the operator for a new token, after the books came with a book file or the key was changed. */
export function TerminalKeyDialog({ terminal, onClose }: { terminal: TerminalView; onClose: () => void }) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { key: "" },
    schema: terminalKeyBody,
    body: (typed) => typed,
    send: (body) => api.put("/clients/:id/terminals/:terminal/key", [client?.id, terminal.id], body),
    refresh: keys.of(client?.id, "terminals"),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Key of ${terminal.name}, merchant ${terminal.merchant}`}
      action="Authorise"
      busy="Asking the operator …"
      onClose={onClose}
    >
      <TextField
        name="key"
        label="Key of the operator"
        hint="From the operator’s pages; only a token is kept."
      />
    </BodyDialog>
  );
}
