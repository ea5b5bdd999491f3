import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.tsx";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ACCOUNT_ROLES } from "@fiscalon/core/model/account";
import type { Account, AccountRole, AccountType } from "@fiscalon/core/model/account";
import { useScope } from "../app/scope.ts";
import { api, ApiError } from "../api/client.ts";
import { Field, SelectField } from "../kit/Field.tsx";
import { FormDialog } from "../kit/FormDialog.tsx";

export const ROLE_WORDS: Readonly<Record<AccountRole, string>> = {
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
  allowance: "kept for filing in time",
  "carried-credit": "credit left with the authority",
  difference: "payment differences",
  exchange: "exchange differences",
  opening: "opening balances",
  "card-clearing": "card takings in transit",
  "bank-charges": "bank and card charges",
};

const WITHOUT_LEVY = new Set<AccountRole>([
  "bank",
  "receivable",
  "payable",
  "sales",
  "purchases",
  "difference",
  "exchange",
  "opening",
  "card-clearing",
  "bank-charges",
]);

/** Adds or changes an account; adding is also opened from within a line of a document. */
export function AccountDialog({
  account = null,
  code = "",
  name = "",
  onClose,
  onDone,
}: {
  account?: Account | null;
  code?: string;
  name?: string;
  onClose: () => void;
  onDone: (code: string) => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Account>(
    account ?? { code, name, type: "expense", role: null, levy: null, topic: null, usualCode: null },
  );
  const levies = [
    ...new Set([
      ...(client?.registrations.flatMap(({ levies: own }) => own) ?? []),
      ...(client?.pack ? packs.byId(client.pack.id).levies.map(({ levy }) => levy) : []),
    ]),
  ];
  const save = useMutation({
    mutationFn: () => {
      const path = `/clients/${client?.id}/accounts`;
      const body = { ...draft, usualCode: draft.usualCode || null };
      return account
        ? api.put<Account[]>(`${path}/${encodeURIComponent(account.code)}`, body)
        : api.post<Account[]>(path, body);
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onDone(draft.code);
    },
  });
  const set = (change: Partial<Account>) => setDraft({ ...draft, ...change });
  const error = (path: string) =>
    save.error instanceof ApiError && save.error.field === path ? save.error.message : undefined;
  const ofLevy = draft.role !== null && !WITHOUT_LEVY.has(draft.role);
  return (
    <FormDialog
      title={account ? `Change account ${account.code}` : "Add an account"}
      action={account ? "Save" : "Add account"}
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <div className="grid grid-cols-[120px_1fr] gap-4">
        <Field
          label="Number"
          value={draft.code}
          error={error("code")}
          readOnly={account !== null}
          onChange={(event) => set({ code: event.target.value })}
          required
          autoFocus={account === null}
        />
        <Field
          label="Name"
          value={draft.name}
          error={error("name")}
          onChange={(event) => set({ name: event.target.value })}
          required
        />
        <SelectField
          label="Type"
          value={draft.type}
          onChange={(event) => set({ type: event.target.value as AccountType })}
        >
          {["asset", "liability", "equity", "income", "expense"].map((type) => (
            <option key={type}>{type}</option>
          ))}
        </SelectField>
        <Field
          label="Usual tax code"
          value={draft.usualCode ?? ""}
          error={error("usualCode")}
          onChange={(event) => set({ usualCode: event.target.value.toUpperCase() })}
          hint="Proposed for lines on this account"
        />
        <SelectField
          className="col-span-2"
          label="Used by Fiscalon for"
          value={draft.role ?? ""}
          error={error("role")}
          onChange={(event) => {
            const role = (event.target.value || null) as AccountRole | null;
            set({
              role,
              levy: role === null || WITHOUT_LEVY.has(role) ? null : (draft.levy ?? levies[0] ?? null),
            });
          }}
        >
          <option value="">nothing by itself</option>
          {ACCOUNT_ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE_WORDS[role]}
            </option>
          ))}
        </SelectField>
        {ofLevy && (
          <Field
            className="col-span-2"
            label="Of the levy"
            value={draft.levy ?? ""}
            list="levies-of-client"
            error={error("levy")}
            hint="Several that share the account with a slash between: GST/HST"
            onChange={(event) => set({ levy: event.target.value || null })}
          />
        )}
        <datalist id="levies-of-client">
          {levies.map((levy) => (
            <option key={levy}>{levy}</option>
          ))}
        </datalist>
      </div>
    </FormDialog>
  );
}
