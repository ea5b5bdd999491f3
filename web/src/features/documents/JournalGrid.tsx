import { X } from "lucide-react";
import { Combo } from "../../kit/Combo.tsx";
import type { Choice } from "../../kit/Combo.tsx";
import { BLANK_LINE } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";

/** Debits and credits of a journal; a credit is kept as a negative amount. */
export function JournalGrid({
  draft,
  accounts,
  readOnly,
  onLine,
  onLines,
}: {
  draft: Draft;
  accounts: Choice[];
  readOnly: boolean;
  onLine: (index: number, change: Partial<DraftLine>) => void;
  onLines: (lines: DraftLine[]) => void;
}) {
  const side = (row: number, credit: boolean) => {
    const { amount } = draft.lines[row] ?? BLANK_LINE;
    const isCredit = amount.startsWith("-");
    return (
      <input
        className="cell num"
        aria-label={`${credit ? "Credit" : "Debit"}, line ${row + 1}`}
        inputMode="decimal"
        readOnly={readOnly}
        value={amount !== "" && isCredit === credit ? amount.replace("-", "") : ""}
        onChange={(event) => {
          const typed = event.target.value.replace("-", "");
          onLine(row, { amount: typed === "" ? "" : credit ? `-${typed}` : typed });
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && !event.ctrlKey && !event.metaKey && row === draft.lines.length - 1)
            onLines([...draft.lines, BLANK_LINE]);
        }}
      />
    );
  };
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>Text</th>
          <th className="w-[220px]">Account</th>
          <th className="num w-[120px]">Debit</th>
          <th className="num w-[120px]">Credit</th>
          <th className="w-[28px]" />
        </tr>
      </thead>
      <tbody>
        {draft.lines.map((line, row) => (
          <tr key={row} className="[&>td]:!p-0">
            <td>
              <input
                className="cell"
                aria-label={`Text, line ${row + 1}`}
                value={line.text}
                readOnly={readOnly}
                onChange={(event) => onLine(row, { text: event.target.value })}
              />
            </td>
            <td>
              <Combo
                cell
                mono
                label={`Account, line ${row + 1}`}
                value={line.account}
                choices={accounts}
                disabled={readOnly}
                onChange={(account) => onLine(row, { account })}
              />
            </td>
            <td>{side(row, false)}</td>
            <td>{side(row, true)}</td>
            <td>
              {!readOnly && draft.lines.length > 2 && (
                <button
                  type="button"
                  aria-label={`Remove line ${row + 1}`}
                  className="cursor-pointer p-1.5 text-secondary hover:text-error"
                  onClick={() => onLines(draft.lines.filter((_, index) => index !== row))}
                >
                  <X size={14} />
                </button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
