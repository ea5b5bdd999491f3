import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { instalmentBody } from "@fiscalon/contract/settlement";
import type { InstalmentsView, InstalmentView } from "@fiscalon/contract/settlement";
import type { TrailStep } from "@fiscalon/contract/trail";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { plainAmount } from "../../kit/format.ts";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { SETTLEMENT } from "./PaymentForm.tsx";
import type { SettlementParts } from "./PaymentForm.tsx";

/** What is paid during the period against its one return: when, how much and why, and what of it is paid. */
export function Instalments({
  view,
  parts,
  open,
  onPay,
}: {
  view: InstalmentsView;
  parts: SettlementParts;
  /** Whether the return is not sealed yet. */
  open: boolean;
  onPay: (amount: number) => void;
}) {
  const { minorDigits: digits } = useScope();
  const [saying, setSaying] = useState<InstalmentView | null>(null);
  const { labels } = view;
  return (
    <section aria-label="Instalments" className="mb-6">
      <h2 className="mb-1">{view.name}</h2>
      <p className="quiet mb-1 max-w-[820px]">
        {view.says} ({view.source})
      </p>
      {view.warning && (
        <p className="mb-1 text-warning" role="status">
          ▲ {view.warning}
        </p>
      )}
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Months to</th>
            <th>Due</th>
            {labels && (
              <>
                <th className="num">{labels.asked} asked for</th>
                <th className="num">{labels.estimate} estimate</th>
                <th className="num">{labels.varied} varied</th>
                <th>{labels.reason}</th>
              </>
            )}
            <th className="num">{labels ? `${labels.due} to pay` : "To pay"}</th>
            <th className="num">Paid</th>
            <th className="num">Left</th>
            <th aria-label="What can be done" />
          </tr>
        </thead>
        <tbody>
          {view.rows.map((row) => {
            const left = (row.amount ?? row.paid) - row.paid;
            return (
              <tr key={row.no}>
                <td className="whitespace-nowrap">{displayDate(row.to)}</td>
                <td className="whitespace-nowrap">
                  {displayDate(row.due)}
                  {row.late > 0 && <span className="ml-2 text-warning">▲ {row.late} d late</span>}
                </td>
                {labels && (
                  <>
                    <td className="num">{row.asked === null ? "" : displayAmount(row.asked, digits)}</td>
                    <td className="num">
                      {row.estimate === null ? "" : displayAmount(row.estimate, digits)}
                    </td>
                    <td className="num">{row.varied === null ? "" : displayAmount(row.varied, digits)}</td>
                    <td>{row.reason}</td>
                  </>
                )}
                <td className="num">
                  {row.amount === null ? (
                    <span className="quiet" title={row.arithmetic}>
                      to be said
                    </span>
                  ) : (
                    <Figure
                      amount={row.amount}
                      digits={digits}
                      of={workedStep(view, row, digits)}
                      label={`Instalment of ${displayDate(row.to)}`}
                    />
                  )}
                </td>
                <td className="num">{row.paid === 0 ? "" : displayAmount(row.paid, digits)}</td>
                <td className="num">{left === 0 ? "" : displayAmount(left, digits)}</td>
                <td className="text-right whitespace-nowrap">
                  {open && view.told && (
                    <button type="button" className="word-link mr-3" onClick={() => setSaying(row)}>
                      Set figures
                    </button>
                  )}
                  {open && left > 0 && (
                    <button type="button" className="word-link" onClick={() => onPay(left)}>
                      Record payment
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {saying && <SayDialog view={view} row={saying} parts={parts} onClose={() => setSaying(null)} />}
    </section>
  );
}

function workedStep(view: InstalmentsView, row: InstalmentView, digits: number): TrailStep {
  return {
    ref: `instalment/${row.to}/${row.amount}`,
    title: `${view.name}: months to ${displayDate(row.to)}`,
    amount: row.amount ?? 0,
    digits,
    words: [`${view.says} (${view.source})`, ...(row.reason === "" ? [] : [row.reason])],
    parts: row.heads.map(({ head, amount }) => ({ ref: null, label: head, detail: "", amount })),
    arithmetic: [row.arithmetic],
  };
}

function SayDialog({
  view,
  row,
  parts,
  onClose,
}: {
  view: InstalmentsView;
  row: InstalmentView;
  parts: SettlementParts;
  onClose: () => void;
}) {
  const { client, minorDigits: digits } = useScope();
  const text = (amount: number | null) => (amount === null ? "" : formatAmount(amount, digits));
  const dialog = useBodyForm({
    values: { asked: text(row.asked), estimate: text(row.estimate), reason: row.reason },
    schema: instalmentBody,
    body: (typed) => ({ ...typed, asked: plainAmount(typed.asked), estimate: plainAmount(typed.estimate) }),
    seen: seenOf(row),
    send: (body, _typed, seen) => api.put(`${SETTLEMENT}/instalments/:no`, [...parts, row.no], body, seen),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  const label = (name: string, of: string | undefined) => (of === undefined ? name : `${of}: ${name}`);
  return (
    <BodyDialog
      of={dialog}
      title={`Instalment of the months to ${displayDate(row.to)}`}
      action="Keep"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField
        name="asked"
        label={label("what the authority asks for", view.labels?.asked)}
        inputMode="decimal"
      />
      <TextField
        name="estimate"
        label={label("estimate of the whole period", view.labels?.estimate)}
        inputMode="decimal"
      />
      <TextField name="reason" label={label("reason", view.labels?.reason)} className="col-span-2" />
    </BodyDialog>
  );
}
