import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { BankAccountView } from "@fiscalon/contract/bank";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { Field } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";

/** Names the account at the bank and asks for consent to read it. */
export function ConnectBankDialog({
  account,
  onClose,
  onDone,
}: {
  account: BankAccountView;
  onClose: () => void;
  onDone: () => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [number, setNumber] = useState("");
  const connect = useMutation({
    mutationFn: () => api.post(`/clients/${client?.id}/bank`, { account: account.account, number }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "bank") });
      onDone();
    },
  });
  return (
    <FormDialog
      title={`Connect ${account.account} ${account.name}`}
      action={connect.isPending ? "Asking the bank …" : "Ask for consent"}
      error={connect.error}
      onClose={onClose}
      onSubmit={() => connect.mutate()}
    >
      <p className="quiet mb-3">
        The bank asks the holder for consent to read the account for ninety days. Nothing can be paid from
        here.
      </p>
      <Field
        label="Number of the account at the bank"
        value={number}
        required
        minLength={4}
        onChange={(event) => setNumber(event.target.value)}
      />
    </FormDialog>
  );
}
