import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Account, AccountType } from "@fiscalon/core/ledger/account";
import { useScope } from "../../app/scope.ts";
import { api } from "../../kit/api.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { useSetup } from "./useSetup.ts";

const ROLE_WORDS: Record<string, string> = {
  bank: "bank",
  receivable: "what customers owe",
  payable: "what is owed to suppliers",
  sales: "sales without an account",
  purchases: "purchases without an account",
  "output-tax": "output tax",
  "input-tax": "input tax",
  "due-to-authority": "filed, not yet paid",
  rounding: "rounding of returns",
  adjustment: "adjustments on returns",
  charges: "interest and penalties",
};

/** The chart of accounts with what Fiscalon itself posts where. */
export function AccountsPage() {
  const setup = useSetup();
  const [adding, setAdding] = useState(false);
  return (
    <Sheet
      title="Accounts"
      aside={setup ? `${setup.plain.accounts.length} in the chart` : ""}
      actions={
        <button type="button" className="action main" onClick={() => setAdding(true)}>
          Add account
        </button>
      }
    >
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Account</th>
            <th>Name</th>
            <th>Type</th>
            <th>Used by Fiscalon for</th>
            <th>Usual code</th>
          </tr>
        </thead>
        <tbody>
          {setup?.plain.accounts.map((account) => (
            <tr key={account.code}>
              <td className="font-mono">{account.code}</td>
              <td className="font-semibold">{account.name}</td>
              <td>{account.type}</td>
              <td className="quiet">
                {account.role && ROLE_WORDS[account.role]}
                {account.role && account.levy ? `, ${account.levy}` : ""}
              </td>
              <td>{account.usualCode && <span className="code-chip">{account.usualCode}</span>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <NewAccountDialog
        open={adding}
        code=""
        name=""
        onClose={() => setAdding(false)}
        onDone={() => setAdding(false)}
      />
    </Sheet>
  );
}

/** Also opened from within a line of a document. */
export function NewAccountDialog({
  open,
  code,
  name,
  onClose,
  onDone,
}: {
  open: boolean;
  code: string;
  name: string;
  onClose: () => void;
  onDone: (code: string) => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState({ code, name, type: "expense" as AccountType, usualCode: "" });
  const save = useMutation({
    mutationFn: () =>
      api.post<Account[]>(`/clients/${client?.id}/accounts`, {
        ...draft,
        usualCode: draft.usualCode || null,
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["client", client?.id, "setup"] });
      onDone(draft.code);
    },
  });
  return (
    <FormDialog
      open={open}
      title="Add an account"
      action="Add account"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <div className="grid grid-cols-[120px_1fr] gap-4">
        <Field
          label="Number"
          value={draft.code}
          onChange={(event) => setDraft({ ...draft, code: event.target.value })}
          required
          autoFocus
        />
        <Field
          label="Name"
          value={draft.name}
          onChange={(event) => setDraft({ ...draft, name: event.target.value })}
          required
        />
        <SelectField
          label="Type"
          value={draft.type}
          onChange={(event) => setDraft({ ...draft, type: event.target.value as AccountType })}
        >
          {["asset", "liability", "equity", "income", "expense"].map((type) => (
            <option key={type}>{type}</option>
          ))}
        </SelectField>
        <Field
          label="Usual tax code"
          value={draft.usualCode}
          onChange={(event) => setDraft({ ...draft, usualCode: event.target.value.toUpperCase() })}
          hint="Proposed for lines on this account"
        />
      </div>
    </FormDialog>
  );
}
