import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { TerminalView } from "@fiscalon/contract/terminals";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Field } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { today } from "../../kit/format.ts";

/** Authorises at the operator, and says when a trading day ends and from when on days are posted. */
export function ConnectTerminalDialog({
  onClose,
  onDone,
}: {
  onClose: () => void;
  onDone: (id: number) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState({
    merchant: "",
    key: "",
    name: "Shop",
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    cutOff: "00:00",
    start: today(),
  });
  const connect = useMutation({
    mutationFn: () => api.post<TerminalView>(`/clients/${client?.id}/terminals`, draft),
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "terminals") });
      onDone(id);
    },
  });
  const wrong = connect.error instanceof ApiError ? connect.error : null;
  const field = (name: keyof typeof draft, label: string, hint?: string) => (
    <Field
      label={label}
      value={draft[name]}
      required
      hint={hint}
      error={wrong?.field === name ? wrong.message : undefined}
      onChange={(event) => setDraft({ ...draft, [name]: event.target.value })}
    />
  );
  return (
    <FormDialog
      title="Connect a card terminal"
      action={connect.isPending ? "Asking the operator …" : "Connect"}
      className="grid grid-cols-2 gap-4"
      error={wrong?.field ? null : connect.error}
      onClose={onClose}
      onSubmit={() => connect.mutate()}
    >
      {field("merchant", "Merchant number")}
      {field("key", "Key of the operator", "From the operator’s pages; only a token is kept.")}
      {field("name", "Name for it here")}
      {field("zone", "Time zone", "Like Europe/London")}
      {field("cutOff", "A trading day ends at", "Before noon; takings before it belong to the day before.")}
      <DateField
        label="Post days from"
        value={draft.start}
        className="w-full"
        onChange={(start) => setDraft({ ...draft, start })}
      />
    </FormDialog>
  );
}
