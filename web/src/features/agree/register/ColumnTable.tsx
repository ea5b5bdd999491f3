import { displayAmount } from "@fiscalon/core/money/amount";
import type { SheetMapping, SheetView } from "@fiscalon/contract/registerSheets";
import { SelectField } from "../../../kit/Field.tsx";

const ROLES = [
  ["tax", "Tax", "amount"],
  ["date", "Date", "date"],
  ["party", "Customer or supplier", "text"],
  ["rate", "Rate", "text"],
] as const;

/** What a choice shows where no column is chosen. */
const NO_COLUMN = "";

/** Which columns of amounts make up which value; what nobody uses is named with its sum. */
export function ColumnTable({
  view,
  onChange,
}: {
  view: SheetView;
  onChange: (mapping: SheetMapping) => void;
}) {
  const { columns, digits, mapping, unused } = view;
  const toggle = (list: "accounts" | "returns", at: number) => {
    const places = mapping[list];
    const next = places.includes(at)
      ? places.filter((one) => one !== at)
      : [...places, at].sort((a, b) => a - b);
    onChange({ ...mapping, [list]: next });
  };
  return (
    <div>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Column of amounts</th>
            <th className="num">Sum</th>
            <th className="text-center">Accounts</th>
            <th className="text-center">Return</th>
          </tr>
        </thead>
        <tbody>
          {columns
            .filter(({ kind }) => kind === "amount")
            .map(({ at, name, sum }) => (
              <tr key={at}>
                <td>
                  {name}
                  {unused.some((one) => one.at === at) && (
                    <span className="ml-2 text-warning">▲ not used</span>
                  )}
                </td>
                <td className="num">{displayAmount(sum ?? 0, digits)}</td>
                {(["accounts", "returns"] as const).map((list) => (
                  <td key={list} className="text-center">
                    <input
                      type="checkbox"
                      checked={mapping[list].includes(at)}
                      onChange={() => toggle(list, at)}
                      aria-label={`${name} is part of the value ${list === "accounts" ? "in the accounts" : "on the return"}`}
                    />
                  </td>
                ))}
              </tr>
            ))}
        </tbody>
      </table>
      <div className="mt-3 grid grid-cols-2 gap-3">
        {ROLES.map(([role, label, kind]) => (
          <SelectField
            key={role}
            label={label}
            value={mapping[role] ?? NO_COLUMN}
            onChange={({ target }) =>
              onChange({ ...mapping, [role]: target.value === "" ? null : Number(target.value) })
            }
          >
            <option value="">none</option>
            {columns
              .filter((column) => column.kind === kind || (kind === "text" && column.kind !== "date"))
              .map(({ at, name }) => (
                <option key={at} value={at}>
                  {name}
                </option>
              ))}
          </SelectField>
        ))}
      </div>
    </div>
  );
}
