import { keys } from "../api/keys.ts";
import { usePacks } from "../api/packs.ts";
import { useWatch } from "react-hook-form";
import { accountBody } from "@fiscalon/contract/setup";
import { ACCOUNT_ROLES } from "@fiscalon/core/model/account";
import type { Account, AccountRole } from "@fiscalon/core/model/account";
import { useScope } from "../app/scope.ts";
import { api } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { ChoiceField, TextField } from "../kit/formFields.tsx";
import { useBodyForm } from "../kit/useBodyForm.ts";

export const ROLE_WORDS: Readonly<Record<AccountRole, string>> = {
  bank: "bank",
  stock: "stock of the stock book",
  "stock-cost": "cost of what was sold from it",
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
  "held-credit": "input tax not yet deducted",
  "scheme-cost": "tax on turnover under a scheme",
  "scheme-gain": "gain of a scheme",
  difference: "payment differences",
  exchange: "exchange differences",
  opening: "opening balances",
  "card-clearing": "card takings in transit",
  "bank-charges": "bank and card charges",
  "collected-at-source": "tax collected from customers",
  "deducted-at-source": "tax deducted from us",
};

const WITHOUT_LEVY = new Set<AccountRole>([
  "bank",
  "stock",
  "stock-cost",
  "receivable",
  "payable",
  "sales",
  "purchases",
  "difference",
  "exchange",
  "opening",
  "card-clearing",
  "bank-charges",
  "collected-at-source",
  "deducted-at-source",
]);

interface Typed {
  code: string;
  name: string;
  type: Account["type"];
  role: AccountRole | "";
  levy: string;
  usualCode: string;
}

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
  const levies = [
    ...new Set([
      ...(client?.registrations.flatMap(({ levies: own }) => own) ?? []),
      ...(client?.pack ? packs.byId(client.pack.id).levies.map(({ levy }) => levy) : []),
    ]),
  ];
  const values: Typed = {
    code: account?.code ?? code,
    name: account?.name ?? name,
    type: account?.type ?? "expense",
    role: account?.role ?? "",
    levy: account?.levy ?? "",
    usualCode: account?.usualCode ?? "",
  };
  const dialog = useBodyForm({
    values,
    schema: accountBody,
    body: (typed): Account => ({
      ...typed,
      role: typed.role || null,
      levy: isOfLevy(typed.role) ? typed.levy || null : null,
      topic: account?.topic ?? null,
      usualCode: typed.usualCode || null,
    }),
    seen: seenOf(account),
    send: (body, _typed, seen) =>
      account
        ? api.put("/clients/:id/accounts/:code", [client?.id, account.code], body, seen)
        : api.post("/clients/:id/accounts", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved: (_, typed) => onDone(typed.code),
  });
  const { control, setValue, getValues } = dialog.form;
  const role = useWatch({ control, name: "role" });
  return (
    <BodyDialog
      of={dialog}
      title={account ? `Change account ${account.code}` : "Add an account"}
      action={account ? "Save" : "Add account"}
      onClose={onClose}
    >
      <div className="grid grid-cols-[120px_1fr] gap-4">
        <TextField name="code" label="Number" readOnly={account !== null} autoFocus={account === null} />
        <TextField name="name" label="Name" />
        <ChoiceField name="type" label="Type">
          {["asset", "liability", "equity", "income", "expense"].map((type) => (
            <option key={type}>{type}</option>
          ))}
        </ChoiceField>
        <TextField name="usualCode" label="Usual tax code" upper hint="Proposed for lines on this account" />
        <ChoiceField
          className="col-span-2"
          name="role"
          label="Used by Fiscalon for"
          onChosen={(chosen) => {
            if (isOfLevy(chosen as AccountRole | "") && getValues("levy") === "")
              setValue("levy", levies[0] ?? "");
          }}
        >
          <option value="">nothing by itself</option>
          {ACCOUNT_ROLES.map((one) => (
            <option key={one} value={one}>
              {ROLE_WORDS[one]}
            </option>
          ))}
        </ChoiceField>
        {isOfLevy(role) && (
          <TextField
            className="col-span-2"
            name="levy"
            label="Of the levy"
            list="levies-of-client"
            hint="Several that share the account with a slash between: GST/HST"
          />
        )}
        <datalist id="levies-of-client">
          {levies.map((levy) => (
            <option key={levy}>{levy}</option>
          ))}
        </datalist>
      </div>
    </BodyDialog>
  );
}

/** Whether an account with this use is kept for each levy by itself. */
function isOfLevy(role: AccountRole | ""): role is AccountRole {
  return role !== "" && !WITHOUT_LEVY.has(role);
}
