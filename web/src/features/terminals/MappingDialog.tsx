import { keys } from "../../api/keys.ts";
import { at } from "@fiscalon/core/at";
import { mappingBody } from "@fiscalon/contract/terminals";
import type { TerminalMapping } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalView } from "@fiscalon/contract/terminals";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { usePlainSetup } from "../../app/records.ts";

interface Row {
  field: `taxes.${number}` | "surcharge" | "tip" | "fee";
  name: string;
  side: "sale" | "purchase";
}

/** Which code and account each of the terminal's words is. */
export function MappingDialog({ terminal, onClose }: { terminal: TerminalView; onClose: () => void }) {
  const { client } = useScope();
  const setup = usePlainSetup();
  const words = [...new Set([...Object.keys(terminal.mapping.taxes), ...terminal.unmapped])];
  const dialog = useBodyForm({
    values: {
      taxes: words.map((tax) => terminal.mapping.taxes[tax] ?? terminal.mapping.surcharge),
      surcharge: terminal.mapping.surcharge,
      tip: terminal.mapping.tip,
      fee: terminal.mapping.fee,
      bank: terminal.mapping.bank,
    },
    schema: mappingBody,
    body: ({ taxes, ...rest }): { mapping: TerminalMapping } => ({
      mapping: { ...rest, taxes: Object.fromEntries(words.map((tax, index) => [tax, at(taxes, index)])) },
    }),
    seen: seenOf(terminal),
    send: (body, _typed, seen) =>
      api.put("/clients/:id/terminals/:terminal/mapping", [client?.id, terminal.id], body, seen),
    refresh: keys.of(client?.id, "terminals"),
    onSaved: onClose,
  });
  const { register } = dialog.form;
  const rows: Row[] = [
    ...words.map((tax, index): Row => ({
      field: `taxes.${index}`,
      name: `Takings, “${tax}”`,
      side: "sale",
    })),
    { field: "surcharge", name: "Surcharge, a sale of its own", side: "sale" },
    { field: "tip", name: "Tips", side: "sale" },
    { field: "fee", name: "Fees of the operator", side: "purchase" },
  ];
  return (
    <BodyDialog
      of={dialog}
      title={`Codes and accounts of ${terminal.name}`}
      action="Keep"
      wide
      onClose={onClose}
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
          {rows.map(({ field, name, side }) => (
            <tr key={field}>
              <td>{name}</td>
              <td>
                <select
                  className="entry"
                  aria-label={`Tax code of ${name}`}
                  {...register(`${field}.code`, { setValueAs: (code: string | null) => code || null })}
                >
                  <option value="">none</option>
                  {setup?.codes
                    .filter(({ direction }) => direction === "both" || direction === side)
                    .map((code) => (
                      <option key={code.code} value={code.code}>
                        {code.code} {code.name}
                      </option>
                    ))}
                </select>
              </td>
              <td>
                <select className="entry" aria-label={`Account of ${name}`} {...register(`${field}.account`)}>
                  {setup?.accounts.map((account) => (
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
        <select className="entry w-64" {...register("bank")}>
          {setup?.accounts
            .filter(({ type }) => type === "asset" || type === "liability")
            .map((account) => (
              <option key={account.code} value={account.code}>
                {account.code} {account.name}
              </option>
            ))}
        </select>
      </label>
    </BodyDialog>
  );
}
