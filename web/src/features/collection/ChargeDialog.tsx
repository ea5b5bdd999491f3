import { collectionChargeBody } from "@fiscalon/contract/collection";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plural, today } from "../../kit/format.ts";
import { DayField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** Customers are charged what their receipts up to a day came to, a debit note each. */
export function ChargeDialog({
  ids,
  year,
  onClose,
  onDone,
}: {
  ids: number[];
  year: string;
  onClose: () => void;
  onDone: () => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { to: year < today() ? year : today() },
    schema: collectionChargeBody,
    body: ({ to }) => ({ to, customers: ids }),
    send: (body) => api.post("/clients/:id/collection/charges", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved: onDone,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Charge ${plural(ids.length, "customer")}`}
      action="Post the debit notes"
      className="grid gap-4"
      onClose={onClose}
    >
      <p>
        A debit note each for the tax on receipts up to the day that no document has charged, with its
        arithmetic. Take the note out to undo it.
      </p>
      <DayField name="to" label="Receipts up to" className="w-[160px]" />
    </BodyDialog>
  );
}
