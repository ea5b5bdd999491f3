import { terminalBody } from "@fiscalon/contract/terminals";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { today } from "../../kit/format.ts";
import { DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** Authorises at the operator, and says when a trading day ends and from when on days are posted. */
export function ConnectTerminalDialog({
  onClose,
  onDone,
}: {
  onClose: () => void;
  onDone: (id: number) => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: {
      merchant: "",
      key: "",
      name: "Shop",
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      cutOff: "00:00",
      start: today(),
    },
    schema: terminalBody,
    body: (typed) => typed,
    send: (body) => api.post("/clients/:id/terminals", [client?.id], body),
    refresh: keys.of(client?.id, "terminals"),
    onSaved: ({ id }) => onDone(id),
  });
  return (
    <BodyDialog
      of={dialog}
      title="Connect a card terminal"
      action="Connect"
      busy="Asking the operator …"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField name="merchant" label="Merchant number" />
      <TextField
        name="key"
        label="Key of the operator"
        hint="From the operator’s pages; only a token is kept."
      />
      <TextField name="name" label="Name for it here" />
      <TextField name="zone" label="Time zone" hint="Like Europe/London" />
      <TextField
        name="cutOff"
        label="A trading day ends at"
        hint="Before noon; takings before it belong to the day before."
      />
      <DayField name="start" label="Post days from" />
    </BodyDialog>
  );
}
