import { Fragment, useLayoutEffect, useRef, useState } from "react";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { RateChangeRule } from "@fiscalon/core/model/rateChange";
import { moveNear, rateChangeNear, rateChangeRule } from "@fiscalon/core/tax/rateChange";
import type { MoveNear, RateChange } from "@fiscalon/core/tax/rateChange";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { Choice } from "../../kit/Combo.tsx";
import { BLANK_LINE } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";
import { LineNote } from "./LineNote.tsx";
import { LineQuestion } from "./LineQuestion.tsx";
import { RateChangeParts } from "./RateChangeParts.tsx";
import { LineRow } from "./LineRow.tsx";
import type { RowActions, TextColumn } from "./LineRow.tsx";
import { placeOfError } from "./useEffectOf.ts";
import type { LiveEffect } from "./useEffectOf.ts";

export interface Creation {
  what: "account" | "item" | "code";
  line: number;
  text: string;
}

/** How many days around a change of rate it is asked about. */
const NEAR = 31;

/** The change of its rate that a line lies close to, and the rule about it; none once the line says whose rate it bears. */
function rateTurn(
  line: DraftLine,
  draft: Draft,
  setup: EffectSetup,
  home: JurisdictionPack | undefined,
): { rule: RateChangeRule; change: RateChange | MoveNear } | undefined {
  const code = setup.codes.get(line.code);
  const day = draft.taxPoint || draft.date;
  if (!code || !home || day === "" || draft.originalDate || line.attributes["rateOn"]) return undefined;
  const rule = rateChangeRule(home.rateChanges, line.supply);
  const change =
    rule &&
    (rateChangeNear(code, setup.schedules, day, NEAR) ??
      moveNear(line.code, home.rateMoves ?? [], day, NEAR));
  return change && { rule, change };
}

/** The lines of a document, moved through like a spreadsheet; a block can be pasted from one. */
export function LineGrid({
  draft,
  live,
  setup,
  accounts,
  codes,
  items,
  onSearchItems,
  digits,
  quantities,
  readOnly,
  onLine,
  onLines,
  onFocusLine,
  onCreate,
  onContact,
  home,
}: {
  draft: Draft;
  live: LiveEffect;
  setup: EffectSetup;
  accounts: Choice[];
  codes: Choice[];
  items: Choice[];
  onSearchItems: (text: string) => void;
  digits: number;
  quantities: boolean;
  readOnly: boolean;
  onLine: (index: number, change: Partial<DraftLine>) => void;
  onLines: (lines: DraftLine[]) => void;
  onFocusLine: (index: number) => void;
  onCreate: (creation: Creation) => void;
  /** Opens the contact, where a code depends on what is not known of it. */
  onContact: (() => void) | null;
  /** The jurisdiction of the place of the document. */
  home: JurisdictionPack | undefined;
}) {
  const grid = useRef<HTMLTableElement>(null);
  const levies = new Set(setup.registrations.flatMap((r) => r.levies));
  const [only = "Tax"] = levies.size === 1 ? levies : [];
  const taxWord = only;
  const wrong = placeOfError(live.error, live.at);
  const move = (row: number, column: string) => {
    grid.current?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)?.focus();
  };
  const [relay] = useState(() => new ActionRelay());
  useLayoutEffect(() => {
    relay.pointTo({
      change: onLine,
      typed: (row, column, text) =>
        onLine(row, column === "tax" ? { tax: text, taxOf: "", taxes: {} } : { [column]: text }),
      focus: onFocusLine,
      keys: (row, column, event) => {
        if (event.key === "ArrowUp") move(row - 1, column);
        else if (event.key === "ArrowDown" || (event.key === "Enter" && !event.ctrlKey && !event.metaKey)) {
          event.preventDefault();
          if (row === draft.lines.length - 1 && !readOnly) onLines([...draft.lines, BLANK_LINE]);
          requestAnimationFrame(() => move(row + 1, column));
        } else if (event.key === "Backspace" && event.altKey) relay.actions.remove(row);
      },
      paste: (row, column, event) => {
        const block = event.clipboardData.getData("text/plain");
        if (!/[\t\n]/.test(block.trim())) return;
        event.preventDefault();
        onLines([...pasted(draft.lines, block, row, column, quantities), BLANK_LINE]);
      },
      remove: (row) => {
        const left = draft.lines.filter((_, index) => index !== row);
        onLines(left.length === 0 ? [BLANK_LINE] : left);
      },
      create: (what, line, text) => onCreate({ what, line, text }),
    });
  });
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
          const question = line.asks ?? priced?.asks;
          const proposal = readOnly
            ? undefined
            : live.effect?.warnings.find(
                (one) => one.take !== undefined && one.line === live.at.indexOf(row) + 1,
              );
          const turn = readOnly || !priced ? undefined : rateTurn(line, draft, setup, home);
          const tax = priced?.taxes.reduce((sum, one) => sum + one.tax, 0);
          return (
            <Fragment key={row}>
              <LineRow
                row={row}
                line={line}
                last={row === draft.lines.length - 1}
                single={draft.lines.length === 1}
                amountShown={priced && line.amount === "" ? displayAmount(priced.amount, digits) : undefined}
                taxShown={tax === undefined ? undefined : tax === 0 ? "–" : displayAmount(tax, digits)}
                wrongField={wrong?.line === row ? wrong.field : null}
                taxWord={taxWord}
                quantities={quantities}
                readOnly={readOnly}
                accounts={accounts}
                codes={codes}
                items={items}
                onSearchItems={onSearchItems}
                actions={relay.actions}
              />
              {question && !readOnly && (
                <LineQuestion
                  row={row}
                  question={question}
                  classes={home?.classes ?? []}
                  regions={home?.regions ?? []}
                  onAnswer={(change) => onLine(row, change)}
                  onPlace={(region) =>
                    onLine(row, {
                      attributes: { ...line.attributes, [home?.placeAttribute ?? ""]: region },
                      asks: null,
                    })
                  }
                  onContact={onContact}
                />
              )}
              {proposal?.take !== undefined && (
                <LineNote label={`Proposal for line ${row + 1}`}>
                  <span>{proposal.text}</span>
                  <button
                    type="button"
                    className="action !py-0"
                    onClick={() =>
                      onLine(row, { code: proposal.take ?? line.code, codeTyped: true, codeReason: "" })
                    }
                  >
                    Take {proposal.take}
                  </button>
                </LineNote>
              )}
              {turn && (
                <RateChangeParts
                  row={row}
                  line={line}
                  amount={priced?.amount ?? 0}
                  rule={turn.rule}
                  change={turn.change}
                  invoiced={draft.date}
                  digits={digits}
                  onSplit={(parts) =>
                    onLines(draft.lines.flatMap((other, index) => (index === row ? parts : [other])))
                  }
                />
              )}
            </Fragment>
          );
        })}
      </tbody>
      {setup.accounts.length === 0 && <caption className="text-error">There are no accounts yet.</caption>}
    </table>
  );
}

/** Actions that stay the same object and do whatever the newest ones do. */
class ActionRelay {
  #newest: RowActions | undefined;
  readonly actions: RowActions = {
    change: (...given) => this.#newest?.change(...given),
    typed: (...given) => this.#newest?.typed(...given),
    focus: (...given) => this.#newest?.focus(...given),
    keys: (...given) => this.#newest?.keys(...given),
    paste: (...given) => this.#newest?.paste(...given),
    remove: (...given) => this.#newest?.remove(...given),
    create: (...given) => this.#newest?.create(...given),
  };

  pointTo(newest: RowActions): void {
    this.#newest = newest;
  }
}

/** The lines with a block of cells put in from a row and column on. */
function pasted(
  lines: readonly DraftLine[],
  block: string,
  row: number,
  column: TextColumn,
  quantities: boolean,
): DraftLine[] {
  const columns: TextColumn[] = quantities
    ? ["text", "quantity", "unitPrice", "discount", "amount", "tax"]
    : ["text", "amount", "tax"];
  const from = columns.indexOf(column);
  const next = [...lines];
  block
    .trimEnd()
    .split(/\r?\n/)
    .forEach((cells, down) => {
      const line = { ...(next[row + down] ?? BLANK_LINE) };
      cells.split("\t").forEach((cell, across) => {
        const target = columns[from + across];
        if (target) line[target] = cell.trim();
      });
      next[row + down] = line;
    });
  return next;
}
