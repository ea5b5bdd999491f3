import { usePacks } from "../../api/packs.ts";
import { useState } from "react";
import type { Account } from "@fiscalon/core/model/account";
import { missingRoles } from "@fiscalon/core/model/account";
import { Sheet } from "../../kit/Sheet.tsx";
import { AccountDialog, ROLE_WORDS } from "../../records/AccountDialog.tsx";
import { usePlainSetup } from "../../app/records.ts";

/** The chart of accounts with what Fiscalon itself posts where. */
export function AccountsPage() {
  const packs = usePacks();
  const setup = usePlainSetup();
  const [editing, setEditing] = useState<Account | "new" | null>(null);
  const close = () => setEditing(null);
  const missing = (setup?.registrations ?? []).flatMap(({ pack, levies }) =>
    levies.flatMap((levy) =>
      missingRoles(setup?.accounts ?? [], packs.byId(pack).levies, levy).map(
        (role) => `${ROLE_WORDS[role]} of ${levy}`,
      ),
    ),
  );
  return (
    <Sheet
      title="Accounts"
      aside={setup ? `${setup.accounts.length} in the chart` : ""}
      actions={
        <button type="button" className="action main" onClick={() => setEditing("new")}>
          Add account
        </button>
      }
    >
      {missing.length > 0 && (
        <p role="alert" className="note-row mb-3 border-l-2 border-error">
          No account is set for {missing.join(", ")}. Nothing of it can be posted; give an account the role.
        </p>
      )}
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
          {setup?.accounts.map((account) => (
            <tr key={account.code}>
              <td className="font-mono">{account.code}</td>
              <td>
                <button
                  type="button"
                  className="cursor-pointer text-left font-semibold hover:text-primary"
                  onClick={() => setEditing(account)}
                >
                  {account.name}
                </button>
              </td>
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
      {editing && (
        <AccountDialog account={editing === "new" ? null : editing} onClose={close} onDone={close} />
      )}
    </Sheet>
  );
}
