import { useState } from "react";
import type { SettlementView } from "@fiscalon/contract/views";
import { formatAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { DateField } from "../../kit/DateField.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { today } from "../../kit/format.ts";

type Kind = SettlementView["payments"][number]["kind"];

export function PaymentForm({
  view,
  onClose,
  onSave,
}: {
  view: SettlementView;
  onClose: () => void;
  onSave: (body: { date: string; kind: Kind; amount: string; reference: string }) => void;
}) {
  const { minorDigits } = useScope();
  const [draft, setDraft] = useState({
    date: today(),
    kind: (view.net < 0 ? "refund" : "payment") as Kind,
    amount: view.outstanding === 0 ? "" : formatAmount(Math.abs(view.outstanding), minorDigits),
    reference: "",
  });
  return (
    <FormDialog
      title="Record money or a charge"
      action="Record"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
      onSubmit={() => onSave({ ...draft, amount: draft.amount.replaceAll(",", "") })}
    >
      <SelectField
        label="What"
        value={draft.kind}
        onChange={(event) => setDraft({ ...draft, kind: event.target.value as Kind })}
      >
        <option value="payment">Payment to the authority</option>
        <option value="refund">Refund from the authority</option>
        <option value="interest">Interest charged</option>
        <option value="penalty">Penalty charged</option>
      </SelectField>
      <DateField
        label="Date on the bank statement"
        value={draft.date}
        onChange={(date) => setDraft({ ...draft, date })}
        className="w-full"
      />
      <Field
        label="Amount, without a sign"
        value={draft.amount}
        inputMode="decimal"
        pattern="[\d,]+(\.\d+)?"
        onChange={(event) => setDraft({ ...draft, amount: event.target.value })}
        required
      />
      <Field
        label="Reference"
        value={draft.reference}
        onChange={(event) => setDraft({ ...draft, reference: event.target.value })}
      />
    </FormDialog>
  );
}
