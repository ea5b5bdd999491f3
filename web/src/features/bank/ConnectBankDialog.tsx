import { keys } from "../../api/keys.ts";
import { bankAccountBody } from "@fiscalon/contract/bank";
import type { BankAccountView } from "@fiscalon/contract/bank";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

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
  const dialog = useBodyForm({
    values: { number: "" },
    schema: bankAccountBody,
    body: ({ number }) => ({ account: account.account, number }),
    send: (body) => api.post("/clients/:id/bank", [client?.id], body),
    refresh: keys.of(client?.id, "bank"),
    onSaved: onDone,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Connect ${account.account} ${account.name}`}
      action="Ask for consent"
      busy="Asking the bank …"
      onClose={onClose}
    >
      <p className="quiet mb-3">
        The bank asks the holder for consent to read the account for ninety days. Nothing can be paid from
        here.
      </p>
      <TextField name="number" label="Number of the account at the bank" />
    </BodyDialog>
  );
}
