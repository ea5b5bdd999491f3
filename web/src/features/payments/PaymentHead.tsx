import type { Account } from "@fiscalon/core/model/account";
import type { ContactView } from "@fiscalon/contract/views";
import { Combo } from "../../kit/Combo.tsx";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import type { PaymentDraft } from "./paymentDraft.ts";

/** Which way, who, when, how much, through which account. */
export function PaymentHead({
  draft,
  contacts,
  accounts,
  base,
  currencies,
  readOnly,
  onSearch,
  onContact,
  onChange,
}: {
  draft: PaymentDraft;
  contacts: readonly ContactView[];
  accounts: readonly Account[];
  /** The currency of the books. */
  base: string;
  /** Those of the party's open documents, and that of the books. */
  currencies: readonly string[];
  readOnly: boolean;
  onSearch: (text: string) => void;
  onContact: (contact: ContactView | null) => void;
  onChange: (change: Partial<PaymentDraft>) => void;
}) {
  const contact = draft.contact;
  const choices = contacts.map(({ id, name, taxNumber }) => ({
    value: String(id),
    label: name,
    detail: taxNumber ?? "",
  }));
  if (contact && !contacts.some(({ id }) => id === contact.id)) {
    choices.push({ value: String(contact.id), label: contact.name, detail: "" });
  }
  return (
    <div className="mb-4 flex flex-wrap items-start gap-x-5 gap-y-3">
      <SelectField
        className="w-[110px]"
        label="Direction"
        value={draft.kind}
        disabled={readOnly}
        onChange={(event) => onChange({ kind: event.target.value as PaymentDraft["kind"], allocations: {} })}
      >
        <option value="receipt">money in</option>
        <option value="payment">money out</option>
      </SelectField>
      <div className="w-[190px]">
        <Combo
          label={draft.kind === "receipt" ? "From" : "To"}
          value={contact ? String(contact.id) : ""}
          choices={choices}
          disabled={readOnly}
          onSearch={onSearch}
          onChange={(value) => onContact(contacts.find(({ id }) => String(id) === value) ?? null)}
          placeholder="type to find"
        />
      </div>
      <DateField
        label="Date"
        value={draft.date}
        disabled={readOnly}
        onChange={(date) => onChange({ date })}
        className="w-[112px]"
      />
      <Field
        className="w-[100px] [&_input]:num"
        label="Amount"
        value={draft.amount}
        readOnly={readOnly}
        inputMode="decimal"
        placeholder="0.00"
        onChange={(event) => onChange({ amount: event.target.value })}
      />
      {currencies.length > 1 && (
        <SelectField
          className="w-[76px]"
          label="Currency"
          value={draft.currency || base}
          disabled={readOnly}
          onChange={(event) =>
            onChange({ currency: event.target.value === base ? "" : event.target.value, allocations: {} })
          }
        >
          {currencies.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </SelectField>
      )}
      {draft.currency !== "" && (
        <Field
          className="w-[120px] [&_input]:num"
          label={`At the bank, ${base}`}
          value={draft.bankAmount}
          readOnly={readOnly}
          inputMode="decimal"
          onChange={(event) => onChange({ bankAmount: event.target.value })}
        />
      )}
      <SelectField
        className="w-[160px]"
        label="Through"
        value={draft.account}
        disabled={readOnly}
        onChange={(event) => onChange({ account: event.target.value })}
      >
        {accounts
          .filter(({ type, role }) => type === "asset" && role !== "receivable" && role !== "input-tax")
          .map(({ code, name }) => (
            <option key={code} value={code}>
              {code} {name}
            </option>
          ))}
      </SelectField>
      <Field
        className="w-[130px]"
        label="Reference"
        value={draft.reference}
        readOnly={readOnly}
        onChange={(event) => onChange({ reference: event.target.value })}
      />
      <Field
        className="w-[100px]"
        label="Number"
        value={draft.number}
        readOnly={readOnly}
        placeholder="next in series"
        onChange={(event) => onChange({ number: event.target.value })}
      />
    </div>
  );
}
