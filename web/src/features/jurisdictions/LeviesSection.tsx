import { useState } from "react";
import { withLevy } from "@fiscalon/core/jurisdictions/blankJurisdiction";
import type { BuilderPart } from "./builderPart.ts";

/** The levies, each with the accounts it is posted to. */
export function LeviesSection({ draft, set, error }: BuilderPart) {
  const [name, setName] = useState("");
  const [deducted, setDeducted] = useState(true);
  const known = draft.levies.some(({ levy }) => levy === name.trim());
  return (
    <section aria-label="Levies">
      <h2 className="mb-1">Levies</h2>
      <table className="sheet-table max-w-3xl">
        <thead>
          <tr>
            <th>Levy</th>
            <th>Paid on purchases</th>
            <th>Accounts</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {draft.levies.map((levy, index) => {
            const accounts = draft.accounts.filter((account) => account.levy === levy.levy);
            return (
              <tr key={levy.levy}>
                <td className="font-semibold">{levy.levy}</td>
                <td>{levy.deducted ? "deducted" : "cost"}</td>
                <td className="quiet font-mono text-[12px]">{accounts.map(({ code }) => code).join(" ")}</td>
                <td className="text-right">
                  {draft.levies.length > 1 && (
                    <button
                      type="button"
                      className="word-link"
                      onClick={() =>
                        set({
                          levies: draft.levies.filter((_, at) => at !== index),
                          accounts: draft.accounts.filter((account) => account.levy !== levy.levy),
                        })
                      }
                    >
                      Take {levy.levy} out
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {error("levies") && <p className="text-error">{error("levies")}</p>}
      <div className="mt-2 flex items-center gap-3">
        <input
          className="entry max-w-[180px]"
          aria-label="Name of a further levy"
          placeholder="Bottle levy"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <label className="flex cursor-pointer items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={deducted}
            onChange={(event) => setDeducted(event.target.checked)}
          />
          deducted on purchases
        </label>
        <button
          type="button"
          className="action"
          disabled={name.trim() === "" || known}
          onClick={() => {
            const { levies, accounts } = withLevy(draft, name.trim(), deducted);
            set({
              levies,
              accounts,
              forms: draft.forms.map((form) => ({ ...form, levies: [...form.levies, name.trim()] })),
            });
            setName("");
          }}
        >
          Add levy
        </button>
      </div>
    </section>
  );
}
