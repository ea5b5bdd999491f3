import { taxPaymentBody } from "@fiscalon/contract/returns";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { ALL_TAX_PAYMENT_KINDS, TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import { formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plainAmount, today } from "../../kit/format.ts";
import { ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** The API's path of a settlement, and its parameters. */
export const SETTLEMENT = "/clients/:id/registrations/:rid/settlements/:period";
export type SettlementParts = [
  client: number | undefined,
  registration: number | undefined,
  end: string | undefined,
];

/** What a payment begins with, minor units: an instalment before the return is filed, or a charge. */
export interface PaymentStart {
  instalment?: number;
  charge?: { kind: "interest" | "penalty"; amount: number };
}

/** Money that went to the authority or came from it, or what it charged. */
export function PaymentForm({
  view,
  parts,
  instalment,
  charge,
  onClose,
}: PaymentStart & {
  view: SettlementView;
  parts: SettlementParts;
  onClose: () => void;
}) {
  const { client, minorDigits } = useScope();
  const offered = ALL_TAX_PAYMENT_KINDS.filter(
    (kind) => (kind === "instalment") === (instalment !== undefined),
  );
  const usual = view.net < 0 ? "refund" : "payment";
  const amount = instalment ?? charge?.amount ?? Math.abs(view.outstanding);
  const dialog = useBodyForm({
    values: {
      date: today(),
      kind: instalment === undefined ? (charge?.kind ?? usual) : "instalment",
      amount: amount === 0 ? "" : formatAmount(amount, minorDigits),
      reference: "",
    },
    schema: taxPaymentBody,
    body: (typed) => ({ ...typed, amount: plainAmount(typed.amount) }),
    send: (body) => api.post(`${SETTLEMENT}/payments`, parts, body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title="Record money or a charge"
      action="Record"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <ChoiceField name="kind" label="What">
        {offered.map((kind) => (
          <option key={kind} value={kind}>
            {TAX_PAYMENT_KINDS[kind].offered}
          </option>
        ))}
      </ChoiceField>
      <DayField name="date" label="Date on the bank statement" />
      <TextField name="amount" label="Amount, without a sign" inputMode="decimal" />
      <TextField name="reference" label="Reference" />
    </BodyDialog>
  );
}
