import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { TerminalMapping, TerminalTarget } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalView } from "@fiscalon/contract/terminals";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { useSetup } from "../../app/useSetup.ts";

type Row = { key: string; name: string; side: "sale" | "purchase"; target: TerminalTarget };

/** Which code and account each of the terminal's words is. */
export function MappingDialog({ terminal, onClose }: { terminal: TerminalView; onClose: () => void }) {
  const { client } = useScope();
  const setup = useSetup();
  const queries = useQueryClient();
  const [mapping, setMapping] = useState<TerminalMapping>(() => ({
    ...terminal.mapping,
    taxes: {
      ...terminal.mapping.taxes,
      ...Object.fromEntries(terminal.unmapped.map((tax) => [tax, terminal.mapping.surcharge])),
    },
  }));
  const save = useMutation({
    mutationFn: () => api.put(`/clients/${client?.id}/terminals/${terminal.id}/mapping`, { mapping }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "terminals") });
      onClose();
    },
  });
  const rows: Row[] = [
    ...Object.entries(mapping.taxes).map(([tax, target]) => ({
      key: tax,
      name: `Takings, “${tax}”`,
      side: "sale" as const,
      target,
    })),
    { key: "surcharge", name: "Surcharge, a sale of its own", side: "sale", target: mapping.surcharge },
    { key: "tip", name: "Tips", side: "sale", target: mapping.tip },
    { key: "fee", name: "Fees of the operator", side: "purchase", target: mapping.fee },
  ];
  const change = (key: string, part: Partial<TerminalTarget>) =>
    setMapping((now) => {
      if (key === "surcharge" || key === "tip" || key === "fee")
        return { ...now, [key]: { ...now[key], ...part } };
      const before = now.taxes[key] ?? now.surcharge;
      return { ...now, taxes: { ...now.taxes, [key]: { ...before, ...part } } };
    });
  return (
    <FormDialog
      title={`Codes and accounts of ${terminal.name}`}
      action="Keep"
      wide
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <p className="quiet mb-3">
        Without a registration choose no code: takings and fees are then posted with their full amount. Days
        that are posted stay as they are.
      </p>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>The terminal says</th>
            <th>Tax code</th>
            <th>Account</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, name, side, target }) => (
            <tr key={key}>
              <td>{name}</td>
              <td>
                <select
                  className="entry"
                  aria-label={`Tax code of ${name}`}
                  value={target.code ?? ""}
                  onChange={(event) => change(key, { code: event.target.value || null })}
                >
                  <option value="">none</option>
                  {setup?.plain.codes
                    .filter(({ direction }) => direction === "both" || direction === side)
                    .map((code) => (
                      <option key={code.code} value={code.code}>
                        {code.code} {code.name}
                      </option>
                    ))}
                </select>
              </td>
              <td>
                <select
                  className="entry"
                  aria-label={`Account of ${name}`}
                  value={target.account}
                  onChange={(event) => change(key, { account: event.target.value })}
                >
                  {setup?.plain.accounts.map((account) => (
                    <option key={account.code} value={account.code}>
                      {account.code} {account.name}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <label className="mt-4 flex items-baseline gap-3">
        <span>Payouts arrive at</span>
        <select
          className="entry w-64"
          value={mapping.bank}
          onChange={(event) => setMapping((now) => ({ ...now, bank: event.target.value }))}
        >
          {setup?.plain.accounts
            .filter(({ type }) => type === "asset" || type === "liability")
            .map((account) => (
              <option key={account.code} value={account.code}>
                {account.code} {account.name}
              </option>
            ))}
        </select>
      </label>
    </FormDialog>
  );
}
