import clsx from "clsx";
import { X } from "lucide-react";
import { useRef } from "react";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import { displayAmount } from "@fiscalon/core/money/amount";
import { Combo } from "../../kit/Combo.tsx";
import type { Choice } from "../../kit/Combo.tsx";
import { BLANK_LINE } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";
import { placeOfError } from "./useEffectOf.ts";
import type { LiveEffect } from "./useEffectOf.ts";

type TextColumn = "text" | "quantity" | "unitPrice" | "discount" | "amount" | "tax";

export interface Creation {
  what: "account" | "item";
  line: number;
  text: string;
}

/** The lines of a document, moved through like a spreadsheet; a block can be pasted from one. */
export function LineGrid({
  draft,
  live,
  setup,
  accounts,
  codes,
  items,
  digits,
  levy,
  quantities,
  readOnly,
  onLine,
  onLines,
  onFocusLine,
  onCreate,
}: {
  draft: Draft;
  live: LiveEffect;
  setup: EffectSetup;
  accounts: Choice[];
  codes: Choice[];
  items: Choice[];
  digits: number;
  levy: string;
  quantities: boolean;
  readOnly: boolean;
  onLine: (index: number, change: Partial<DraftLine>) => void;
  onLines: (lines: DraftLine[]) => void;
  onFocusLine: (index: number) => void;
  onCreate: (creation: Creation) => void;
}) {
  const grid = useRef<HTMLTableElement>(null);
  const several = new Set(setup.registrations.flatMap(({ levies }) => levies)).size > 1;
  const taxWord = several ? "Tax" : levy;
  const wrong = placeOfError(live.error, live.at);
  const columns: TextColumn[] = quantities
    ? ["text", "quantity", "unitPrice", "discount", "amount", "tax"]
    : ["text", "amount", "tax"];

  /** The levy a typed tax is of: the first one the line bears. */
  const levyOfLine = (row: number): string =>
    live.effect?.priced.lines[live.at.indexOf(row)]?.taxes.find((tax) => tax.rate !== null)?.component.levy ??
    "";

  const move = (row: number, column: string) => {
    grid.current?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)?.focus();
  };
  const keys = (row: number, column: string) => (event: React.KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "ArrowUp") move(row - 1, column);
    else if (event.key === "ArrowDown" || (event.key === "Enter" && !event.ctrlKey && !event.metaKey)) {
      event.preventDefault();
      if (row === draft.lines.length - 1 && !readOnly) onLines([...draft.lines, BLANK_LINE]);
      requestAnimationFrame(() => move(row + 1, column));
    } else if (event.key === "Backspace" && event.altKey) remove(row);
  };
  const remove = (row: number) => {
    const left = draft.lines.filter((_, index) => index !== row);
    onLines(left.length === 0 ? [BLANK_LINE] : left);
  };
  const paste = (row: number, column: TextColumn) => (event: React.ClipboardEvent) => {
    const block = event.clipboardData.getData("text/plain");
    if (!/[\t\n]/.test(block.trim())) return;
    event.preventDefault();
    const from = columns.indexOf(column);
    const lines = [...draft.lines];
    block
      .trimEnd()
      .split(/\r?\n/)
      .forEach((cells, down) => {
        const line = { ...(lines[row + down] ?? BLANK_LINE) };
        cells.split("\t").forEach((cell, across) => {
          const target = columns[from + across];
          if (target) line[target] = cell.trim();
        });
        lines[row + down] = line;
      });
    onLines([...lines, BLANK_LINE]);
  };
  const cell = (row: number, column: TextColumn, label: string, numeric: boolean, shown?: string) => (
    <input
      data-cell={`${row}-${column}`}
      aria-label={`${label}, line ${row + 1}`}
      aria-invalid={wrong?.line === row && wrong.field === column ? true : undefined}
      className={clsx(
        "cell",
        numeric && "num",
        wrong?.line === row && wrong.field === column && "!border-error",
      )}
      value={draft.lines[row]?.[column] ?? ""}
      placeholder={shown}
      readOnly={readOnly}
      inputMode={numeric ? "decimal" : undefined}
      onChange={(event) =>
        onLine(row, {
          [column]: event.target.value,
          ...(column === "tax" ? { taxLevy: draft.lines[row]?.taxLevy || levyOfLine(row) } : {}),
        })
      }
      onFocus={() => onFocusLine(row)}
      onKeyDown={keys(row, column)}
      onPaste={paste(row, column)}
    />
  );
  return (
    <table className="sheet-table" ref={grid}>
      <thead>
        <tr>
          <th>Text</th>
          {items.length > 0 && <th className="w-[84px]">Item</th>}
          <th className="w-[66px]">Account</th>
          <th className="w-[58px]">Code</th>
          {quantities && <th className="num w-[60px]">Quantity</th>}
          {quantities && <th className="num w-[72px]">Unit price</th>}
          {quantities && <th className="num w-[62px]">Discount</th>}
          <th className="num w-[86px]">{draft.prices === "exclusive" ? "Net" : "Gross"}</th>
          <th className="num w-[74px]">{taxWord}</th>
          <th className="w-[24px]" />
        </tr>
      </thead>
      <tbody>
        {draft.lines.map((line, row) => {
          const priced = live.effect?.printed.lines[live.at.indexOf(row)];
          const tax = priced?.taxes.reduce((sum, one) => sum + one.tax, 0);
          return (
            <tr key={row} className="[&>td]:!p-0">
              <td>
                {cell(row, "text", "Text", false, row === draft.lines.length - 1 ? "next line" : undefined)}
              </td>
              {items.length > 0 && (
                <td>
                  <Combo
                    cell
                    label={`Item, line ${row + 1}`}
                    value={line.item}
                    choices={items}
                    disabled={readOnly}
                    onChange={(item) => onLine(row, { item })}
                    onCreate={(text) => onCreate({ what: "item", line: row, text })}
                    createWord="Create item"
                    inputProps={{ onFocusCapture: () => onFocusLine(row) }}
                  />
                </td>
              )}
              <td>
                <Combo
                  cell
                  mono
                  label={`Account, line ${row + 1}`}
                  value={line.account}
                  choices={accounts}
                  disabled={readOnly}
                  onChange={(account) => onLine(row, { account })}
                  onCreate={(text) => onCreate({ what: "account", line: row, text })}
                  createWord="Create account"
                />
              </td>
              <td>
                <Combo
                  cell
                  mono
                  label={`Code, line ${row + 1}`}
                  value={line.code}
                  choices={codes}
                  disabled={readOnly}
                  onChange={(code) => onLine(row, { code, codeTyped: code !== "" })}
                />
              </td>
              {quantities && <td>{cell(row, "quantity", "Quantity", true)}</td>}
              {quantities && <td>{cell(row, "unitPrice", "Unit price", true)}</td>}
              {quantities && <td>{cell(row, "discount", "Discount", true)}</td>}
              <td>
                {cell(
                  row,
                  "amount",
                  "Amount",
                  true,
                  priced && line.amount === "" ? displayAmount(priced.amount, digits) : undefined,
                )}
              </td>
              <td className={clsx(line.tax !== "" && "font-semibold text-primary")}>
                {cell(
                  row,
                  "tax",
                  taxWord,
                  true,
                  tax === undefined ? undefined : tax === 0 ? "–" : displayAmount(tax, digits),
                )}
              </td>
              <td>
                {!readOnly && draft.lines.length > 1 && (
                  <button
                    type="button"
                    aria-label={`Remove line ${row + 1}`}
                    className="cursor-pointer p-1 text-secondary hover:text-error"
                    onClick={() => remove(row)}
                  >
                    <X size={14} />
                  </button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
      {setup.accounts.length === 0 && <caption className="text-error">There are no accounts yet.</caption>}
    </table>
  );
}
