import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { AgreementColumn, ControlAgreementView } from "@fiscalon/contract/settlement";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showPeriod } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";

type Row = "opening" | "declared" | "timing" | "settlement" | "payments" | "uncodedTotal" | "closing";

/** What a balance is made of, in the order in which it is added up. */
const ROWS: [Row, string][] = [
  ["opening", "At the start"],
  ["declared", "Tax on this return"],
  ["timing", "Timing: dated here, reported elsewhere, and the other way round"],
  ["settlement", "Closing entries"],
  ["payments", "Payments, refunds, charges"],
  ["uncodedTotal", "Entries without a tax code"],
];

/** The control-account agreement of the period: what the ledger says, made of what the return says. */
export function ControlPage() {
  const { client, registration, period, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [explaining, setExplaining] = useState<ControlAgreementView["uncoded"][number] | null>(null);
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "control", registration?.id, period?.to),
    queryFn: ({ signal }) =>
      api.get(
        "/clients/:id/registrations/:rid/agreements/:period/control",
        [client?.id, registration?.id, period?.to],
        {},
        signal,
      ),
    enabled: registration !== undefined && period !== undefined,
  });
  const explain = useMutation({
    mutationFn: ({ entry, reason }: { entry: number; reason: string }) =>
      api.put("/clients/:id/entries/:entry/explanation", [client?.id, entry], { reason }, seenOf(view)),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  if (client && !registration) {
    return (
      <Sheet title="Agree">
        <EmptyState title="Nothing to agree yet">
          Control accounts are agreed period by period, once there is a registration.
        </EmptyState>
      </Sheet>
    );
  }
  if (!view || !period || !registration) {
    return (
      <Sheet title="Control accounts">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  const open = view.uncoded.filter((entry) => entry.reason === null);
  const of = (account: string, row: Row) => `agreement/${registration.id}/${period.to}/${account}/${row}`;
  const together = (row: Row, name: string) => (
    <Figure
      amount={total(view.columns, row)}
      digits={digits}
      dash
      label={`${name}, together`}
      of={{
        ref: `together/${period.to}/${row}/${name}`,
        title: `${name}, all tax accounts`,
        amount: total(view.columns, row),
        digits,
        words: ["The accounts of the levy added up."],
        parts: view.columns.map((column) => ({
          ref: of(column.account, row),
          label: `${column.account} ${column.name}`,
          detail: "",
          amount: column[row],
        })),
        arithmetic: [],
      }}
    />
  );
  return (
    <Sheet
      title={`Control accounts, ${showPeriod(view.from, view.to)}`}
      aside={view.left === 0 ? "agreed, nothing left" : `${displayAmount(view.left, digits)} left`}
      actions={<AgreeLinks />}
      lead="What each tax account held, what happened to it, and what the ledger says it holds now. Debit positive."
    >
      <ErrorNote error={explain.error} />
      <div className="shrink-0 overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Account</th>
              {ROWS.map(([row, name]) => (
                <th key={row} className="num align-bottom !whitespace-normal">
                  {name}
                </th>
              ))}
              <th className="num align-bottom !whitespace-normal">Balance by this sheet</th>
              <th className="num align-bottom !whitespace-normal">Balance in the ledger</th>
              <th className="num align-bottom">Left</th>
            </tr>
          </thead>
          <tbody>
            {view.columns.map((column) => (
              <tr key={column.account}>
                <td className="max-w-[180px]">
                  {column.account} {column.name}
                </td>
                {ROWS.map(([row, name]) => (
                  <td key={row} className="num">
                    <Figure
                      amount={column[row]}
                      digits={digits}
                      dash
                      of={column[row] === 0 && row !== "timing" ? null : of(column.account, row)}
                      label={`${name}, ${column.name}`}
                    />
                  </td>
                ))}
                <td className="num">
                  <Figure
                    amount={column.closing - column.difference}
                    digits={digits}
                    dash
                    of={of(column.account, "closing")}
                    label={`Balance by this sheet, ${column.name}`}
                  />
                </td>
                <td className="num">
                  <Figure
                    amount={column.closing}
                    digits={digits}
                    dash
                    of={of(column.account, "closing")}
                    label={`Ledger balance, ${column.name}`}
                  />
                </td>
                <td
                  className={
                    column.difference === 0
                      ? "num font-semibold text-success"
                      : "num font-semibold text-error"
                  }
                >
                  {displayAmount(column.difference, digits)} {column.difference === 0 ? "✓" : "▲"}
                </td>
              </tr>
            ))}
            <tr className="total">
              <td>Together</td>
              {ROWS.map(([row, name]) => (
                <td key={row} className="num">
                  {together(row, name)}
                </td>
              ))}
              <td className="num">{together("closing", "Balance by this sheet")}</td>
              <td className="num">{together("closing", "Balance in the ledger")}</td>
              <td className="num">{displayAmount(view.left, digits)}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <h2 className="mt-7 mb-1">
        Entries without a tax code
        {open.length > 0 ? `: ${plural(open.length, "entry", "entries")} to explain or correct` : ""}
      </h2>
      {view.uncoded.length === 0 && (
        <p className="quiet">
          None. Every movement of the tax accounts came through a code, a closing entry or a payment.
        </p>
      )}
      {view.uncoded.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Date</th>
              <th>Entry</th>
              <th>Account</th>
              <th className="num">Amount</th>
              <th>Explanation</th>
            </tr>
          </thead>
          <tbody>
            {view.uncoded.map((entry) => (
              <UncodedRow
                key={`${entry.entry} ${entry.account}`}
                entry={entry}
                digits={digits}
                onExplain={() => setExplaining(entry)}
              />
            ))}
          </tbody>
        </table>
      )}
      <ReasonDialog
        open={explaining !== null}
        title="Explain this entry"
        label="Why it is right as it is"
        action="Keep explanation"
        onClose={() => setExplaining(null)}
        onReason={(reason) => {
          if (explaining) explain.mutate({ entry: explaining.entry, reason });
          setExplaining(null);
        }}
      >
        {explaining?.text}: {explaining ? displayAmount(explaining.amount, digits) : ""} on{" "}
        {explaining?.account}. Only an entry that belongs on the tax account without being on the return can
        be explained; anything else is corrected.
      </ReasonDialog>
    </Sheet>
  );
}

function UncodedRow({
  entry,
  digits,
  onExplain,
}: {
  entry: ControlAgreementView["uncoded"][number];
  digits: number;
  onExplain: () => void;
}) {
  const { path } = useScope();
  return (
    <tr>
      <td>{displayDate(entry.date)}</td>
      <td>
        {entry.documentId === null ? (
          entry.text
        ) : (
          <Link className="hover:text-primary" to={path(`books/documents/${entry.documentId}`)}>
            {entry.text}
          </Link>
        )}
      </td>
      <td className="font-mono">{entry.account}</td>
      <td className="num">
        <Figure amount={entry.amount} digits={digits} of={`entry/${entry.entry}`} label={entry.text} />
      </td>
      <td>
        {entry.reason ?? <span className="text-warning">▲ not explained</span>}{" "}
        <button type="button" className="word-link ml-2" onClick={onExplain}>
          {entry.reason === null ? "Explain" : "Change"}
        </button>
      </td>
    </tr>
  );
}

function total(columns: readonly AgreementColumn[], row: Row): number {
  return columns.reduce((sum, column) => sum + column[row], 0);
}
