import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import { allocationSign } from "@fiscalon/core/ledger/paymentPostings";
import type { Account } from "@fiscalon/core/model/account";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import type { OpenItem } from "@fiscalon/contract/payments";
import { FindInput } from "../../kit/FindInput.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { NO_ALLOCATION, typedAmount } from "./paymentDraft.ts";
import type { DraftAllocation, PaymentDraft } from "./paymentDraft.ts";

/** The open documents of the party, and how much of each is settled. */
export function AllocationGrid({
  draft,
  items,
  accounts,
  digits,
  rest,
  readOnly,
  total,
  shown,
  number,
  onNumber,
  onAllocations,
  onOldestFirst,
}: {
  draft: PaymentDraft;
  items: readonly OpenItem[];
  accounts: readonly Account[];
  digits: number;
  rest: number;
  readOnly: boolean;
  /** How many are open that fit, and how many of them are here. */
  total: number;
  shown: number;
  /** The number that is looked for. */
  number: string;
  onNumber: (number: string) => void;
  onAllocations: (allocations: Record<number, DraftAllocation>) => void;
  onOldestFirst: () => void;
}) {
  const change = (document: number, part: Partial<DraftAllocation>) =>
    onAllocations({
      ...draft.allocations,
      [document]: { ...(draft.allocations[document] ?? NO_ALLOCATION), ...part },
    });
  const settleFully = ({ document, kind, open }: OpenItem) => {
    const left = allocationSign(draft.kind, kind) > 0 ? Math.min(open, Math.max(0, rest)) : open;
    change(document, { amount: formatAmount(left || open, digits) });
  };
  const withDifference = items.some(({ document }) => draft.allocations[document]?.difference);
  if (items.length === 0 && number === "") {
    return (
      <p className="quiet">
        {draft.contact
          ? `Nothing is open with ${draft.contact.name}.`
          : "Choose a party to see what is open."}{" "}
        The money stays on account; allocate it later by opening this payment again.
      </p>
    );
  }
  return (
    <>
      <div className="mb-1 flex items-center gap-4">
        <h2>Settles</h2>
        {!readOnly && number === "" && (
          <button type="button" className="word-link" onClick={onOldestFirst}>
            oldest first
          </button>
        )}
        {!readOnly && (shown < total || number !== "") && (
          <>
            <FindInput
              key={draft.contact?.id}
              label="Find open documents"
              placeholder="Number"
              value={number}
              onChange={onNumber}
            />
            <span className="quiet" role="status">
              {total === 0
                ? "No open document is called so."
                : shown < total && `The ${shown} oldest of ${total.toLocaleString("en-GB")} open are shown.`}
            </span>
          </>
        )}
      </div>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Document</th>
            <th>Date</th>
            <th className="num">Days</th>
            {!draft.contact && <th>Party</th>}
            <th className="num">Gross</th>
            <th className="num">Open</th>
            <th className="num w-[120px]">{draft.kind === "receipt" ? "Received" : "Paid"}</th>
            <th className="num w-[100px]">Write-off</th>
            {withDifference && <th className="w-[170px]">on account</th>}
          </tr>
        </thead>
        <tbody>
          {items.map((item) => {
            const allocation = draft.allocations[item.document] ?? NO_ALLOCATION;
            const left =
              item.open - typedAmount(allocation.amount, digits) - typedAmount(allocation.difference, digits);
            const against = allocationSign(draft.kind, item.kind) < 0;
            return (
              <tr key={item.document}>
                <td>
                  {KIND_NAMES[item.kind]}{" "}
                  <button
                    type="button"
                    className="font-mono text-[12.5px] font-semibold hover:text-primary"
                    title="Settle it in full"
                    disabled={readOnly}
                    onClick={() => settleFully(item)}
                  >
                    {item.number}
                  </button>
                  {against && <span className="quiet"> set off</span>}
                </td>
                <td>{displayDate(item.date)}</td>
                <td className="num">{item.days}</td>
                {!draft.contact && <td>{item.party}</td>}
                <td className="num">
                  <Figure
                    amount={item.gross}
                    digits={digits}
                    of={`document/${item.document}`}
                    label={`Gross of ${item.number}`}
                  />
                </td>
                <td className={clsx("num", left < 0 && "text-error")}>
                  <Figure
                    amount={left}
                    digits={digits}
                    of={`open/${item.document}`}
                    label={`Left open of ${item.number}`}
                    dash
                  />
                </td>
                <td className="!p-0">
                  <input
                    className="cell num"
                    inputMode="decimal"
                    aria-label={`Amount for ${item.number}`}
                    value={allocation.amount}
                    readOnly={readOnly}
                    onChange={(event) => change(item.document, { amount: event.target.value })}
                  />
                </td>
                <td className="!p-0">
                  <input
                    className="cell num"
                    inputMode="decimal"
                    aria-label={`Written off of ${item.number}`}
                    value={allocation.difference}
                    readOnly={readOnly}
                    onChange={(event) => change(item.document, { difference: event.target.value })}
                  />
                </td>
                {withDifference && (
                  <td className="!p-0">
                    {allocation.difference && (
                      <select
                        className="cell"
                        aria-label={`Account of the difference of ${item.number}`}
                        value={allocation.differenceAccount}
                        disabled={readOnly}
                        onChange={(event) => change(item.document, { differenceAccount: event.target.value })}
                      >
                        <option value="">payment differences</option>
                        {accounts
                          .filter(({ type }) => type === "expense" || type === "income")
                          .map(({ code, name }) => (
                            <option key={code} value={code}>
                              {code} {name}
                            </option>
                          ))}
                      </select>
                    )}
                  </td>
                )}
              </tr>
            );
          })}
          <tr className="total">
            <td colSpan={draft.contact ? 4 : 5}>
              {rest < 0 ? "More is allocated than moved" : "Stays on account"}
            </td>
            <td />
            <td className={clsx("num", rest < 0 && "text-error")}>{displayAmount(rest, digits)}</td>
            <td colSpan={withDifference ? 2 : 1} />
          </tr>
        </tbody>
      </table>
      <p className="quiet mt-2 text-[13px]">
        A discount that was agreed lowers the tax: enter a credit note for it. “Write-off” is for small change
        and bank charges; the tax stays as invoiced.
      </p>
    </>
  );
}
