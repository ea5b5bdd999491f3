import clsx from "clsx";
import { X } from "lucide-react";
import { memo } from "react";
import { Combo } from "../../kit/Combo.tsx";
import type { Choice } from "../../kit/Combo.tsx";
import type { DraftLine } from "./draft.ts";

export type TextColumn = "text" | "quantity" | "unitPrice" | "discount" | "amount" | "tax";

/** What a row asks of its grid; the same object as long as the grid is there, so that rows are not drawn for nothing. */
export interface RowActions {
  change: (row: number, change: Partial<DraftLine>) => void;
  typed: (row: number, column: TextColumn, text: string) => void;
  focus: (row: number) => void;
  keys: (row: number, column: string, event: React.KeyboardEvent<HTMLInputElement>) => void;
  paste: (row: number, column: TextColumn, event: React.ClipboardEvent) => void;
  remove: (row: number) => void;
  create: (what: "account" | "item" | "code", row: number, text: string) => void;
}

interface Props {
  row: number;
  line: DraftLine;
  last: boolean;
  single: boolean;
  /** What is calculated where nothing is typed. */
  amountShown: string | undefined;
  taxShown: string | undefined;
  wrongField: string | null;
  taxWord: string;
  quantities: boolean;
  readOnly: boolean;
  accounts: readonly Choice[];
  codes: readonly Choice[];
  items: readonly Choice[];
  onSearchItems: (text: string) => void;
  actions: RowActions;
}

/** One line of a document as cells. Drawn again only when something of its own changes. */
export const LineRow = memo(function LineRow({
  row,
  line,
  last,
  single,
  amountShown,
  taxShown,
  wrongField,
  taxWord,
  quantities,
  readOnly,
  accounts,
  codes,
  items,
  onSearchItems,
  actions,
}: Props) {
  const typed = line.tax !== "" || Object.values(line.taxes).some((text) => text !== "");
  const cell = (column: TextColumn, label: string, numeric: boolean, shown?: string) => (
    <input
      data-cell={`${row}-${column}`}
      aria-label={`${label}, line ${row + 1}`}
      aria-invalid={wrongField === column ? true : undefined}
      className={clsx("cell", numeric && "num", wrongField === column && "!border-error")}
      value={line[column]}
      placeholder={shown}
      readOnly={readOnly}
      inputMode={numeric ? "decimal" : undefined}
      onChange={(event) => actions.typed(row, column, event.target.value)}
      onFocus={() => actions.focus(row)}
      onKeyDown={(event) => actions.keys(row, column, event)}
      onPaste={(event) => actions.paste(row, column, event)}
    />
  );
  return (
    <tr className="[&>td]:!p-0">
      <td>{cell("text", "Text", false, last ? "next line" : undefined)}</td>
      {items.length > 0 && (
        <td>
          <Combo
            cell
            label={`Item, line ${row + 1}`}
            value={line.item}
            choices={items}
            disabled={readOnly}
            onSearch={onSearchItems}
            onChange={(item) => actions.change(row, { item })}
            onCreate={(text) => actions.create("item", row, text)}
            createWord="Create item"
            inputProps={{ onFocusCapture: () => actions.focus(row) }}
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
          onChange={(account) => actions.change(row, { account })}
          onCreate={(text) => actions.create("account", row, text)}
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
          onChange={(code) =>
            actions.change(row, { code, codeTyped: code !== "", codeReason: "", asks: null })
          }
          onCreate={(text) => actions.create("code", row, text)}
          createWord="Create code"
        />
      </td>
      {quantities && <td>{cell("quantity", "Quantity", true)}</td>}
      {quantities && <td>{cell("unitPrice", "Unit price", true)}</td>}
      {quantities && <td>{cell("discount", "Discount", true)}</td>}
      <td className="relative">
        {cell("amount", "Amount", true, amountShown)}
        {line.prices !== "" && (
          <span className="quiet pointer-events-none absolute top-0 left-1 text-[10.5px]">
            {line.prices === "inclusive" ? "incl." : "excl."}
          </span>
        )}
      </td>
      <td className={clsx(typed && "font-semibold text-primary")}>{cell("tax", taxWord, true, taxShown)}</td>
      <td>
        {!readOnly && !single && (
          <button
            type="button"
            aria-label={`Remove line ${row + 1}`}
            className="cursor-pointer p-1.5 text-secondary hover:text-error"
            onClick={() => actions.remove(row)}
          >
            <X size={14} />
          </button>
        )}
      </td>
    </tr>
  );
});
