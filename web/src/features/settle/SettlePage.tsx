import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { LateItems } from "../../records/LateItems.tsx";
import { showPeriod } from "../../kit/format.ts";
import { StateMark } from "../../kit/stateMark.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { Instalments } from "./Instalments.tsx";
import { PaymentForm, SETTLEMENT } from "./PaymentForm.tsx";
import type { PaymentStart, SettlementParts } from "./PaymentForm.tsx";
import { LateCharges } from "./LateCharges.tsx";

/** Closing entry, payments, continuity, and what turned up late. */
export function SettlePage() {
  const { client, registration, period, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [paying, setPaying] = useState<PaymentStart | null>(null);
  const parts: SettlementParts = [client?.id, registration?.id, period?.to];
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "settlement", registration?.id, period?.to),
    queryFn: ({ signal }) => api.get(SETTLEMENT, parts, {}, signal),
    enabled: registration !== undefined && period !== undefined,
  });
  const act = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  if (client && !registration) {
    return (
      <Sheet title="Settle">
        <EmptyState title="Nothing to settle yet">
          Periods are settled once there is a registration and a return was filed.
        </EmptyState>
      </Sheet>
    );
  }
  if (!view || !period) {
    return (
      <Sheet title="Settle">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  const filed = view.state === "filed" || view.state === "settled";
  return (
    <Sheet
      title={`Settle ${showPeriod(view.from, view.to)}`}
      aside={<StateMark state={view.state} />}
      lead={
        filed
          ? outstandingWords(view, digits, client?.currency ?? "")
          : "A period is settled once its return is filed. This is the entry it will make."
      }
      actions={
        <>
          {filed && (
            <button
              type="button"
              className={view.state === "settled" && view.outstanding !== 0 ? "action main" : "action"}
              onClick={() => setPaying({})}
            >
              Record {view.net < 0 ? "refund" : "payment"}
            </button>
          )}
          {view.state === "filed" && (
            <button
              type="button"
              className="action main"
              disabled={act.isPending}
              onClick={() => act.mutate(() => api.post(SETTLEMENT, parts))}
            >
              Post the closing entry
            </button>
          )}
        </>
      }
    >
      <ErrorNote error={act.error} />
      {view.instalments && view.instalments.rows.length > 0 && (
        <Instalments
          view={view.instalments}
          parts={parts}
          open={view.state === "open" || view.state === "in-review"}
          onPay={(instalment) => setPaying({ instalment })}
        />
      )}
      <LateCharges
        view={view}
        canRecord={filed}
        onRecord={(kind, charge) => setPaying({ charge: { kind, amount: charge } })}
      />
      <ClosingEntry view={view} digits={digits} />
      <Payments
        view={view}
        digits={digits}
        onRemove={(id) =>
          act.mutate(() => api.delete("/clients/:id/tax-payments/:payment", [client?.id, id]))
        }
      />
      <Continuity view={view} digits={digits} />
      <LateItems late={view.late} />
      {paying && <PaymentForm view={view} parts={parts} {...paying} onClose={() => setPaying(null)} />}
    </Sheet>
  );
}

function outstandingWords(view: SettlementView, digits: number, currency: string): string {
  const amount = `${displayAmount(Math.abs(view.outstanding), digits)} ${currency}`;
  if (view.outstanding === 0) return "Nothing is outstanding for this period.";
  return view.outstanding > 0 ? `${amount} still to pay.` : `${amount} still to come back.`;
}

/** What the closing entry does to each account: before, by how much, after. */
function ClosingEntry({ view, digits }: { view: SettlementView; digits: number }) {
  return (
    <section aria-label="Closing entry">
      <h2 className="mb-1">
        Closing entry, {displayDate(view.entry.date)}
        <span className="quiet ml-2 font-normal">{view.posted === null ? "not posted yet" : "posted"}</span>
      </h2>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Account</th>
            <th />
            <th className="num">Before</th>
            <th className="num">Debit</th>
            <th className="num">Credit</th>
            <th className="num">After</th>
          </tr>
        </thead>
        <tbody>
          {view.entry.postings.map((posting) => (
            <tr key={`${posting.account} ${posting.text}`}>
              <td>
                <span className="mr-2 font-mono">{posting.account}</span>
                {posting.name}
              </td>
              <td className="quiet">{posting.text}</td>
              <td className="num">
                <Figure
                  amount={posting.before}
                  digits={digits}
                  dash
                  of={`account/${posting.account}/${view.from}/${view.to}`}
                  label={`${posting.name} before`}
                />
              </td>
              <td className="num">
                {posting.amount > 0 ? (
                  <Figure amount={posting.amount} digits={digits} of={posting.ref} label="Debit" />
                ) : (
                  ""
                )}
              </td>
              <td className="num">
                {posting.amount < 0 ? (
                  <Figure amount={-posting.amount} digits={digits} of={posting.ref} label="Credit" />
                ) : (
                  ""
                )}
              </td>
              <td className="num font-semibold">
                <Figure
                  amount={posting.before + posting.amount}
                  digits={digits}
                  of={afterStep(posting, digits)}
                  label={`${posting.name} after`}
                />
              </td>
            </tr>
          ))}
          {view.entry.postings.length === 0 && (
            <tr>
              <td colSpan={6} className="quiet">
                Nothing to close: the return is nil.
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </section>
  );
}

function afterStep(posting: SettlementView["entry"]["postings"][number], digits: number): TrailStep {
  const { account, name, before, amount } = posting;
  return {
    ref: `after/${account}/${before}/${amount}`,
    title: `${account} ${name} after the closing entry`,
    amount: before + amount,
    digits,
    words: [
      "What the account held, and what the closing entry moves. What is left belongs to other periods, or came without a tax code.",
    ],
    parts: [],
    arithmetic: [
      `${displayAmount(before, digits)} ${amount < 0 ? "−" : "+"} ${displayAmount(Math.abs(amount), digits)} = ${displayAmount(before + amount, digits)}`,
    ],
  };
}

function Payments({
  view,
  digits,
  onRemove,
}: {
  view: SettlementView;
  digits: number;
  onRemove: (id: number) => void;
}) {
  if (view.payments.length === 0) return null;
  return (
    <section aria-label="Payments" className="mt-6">
      <h2 className="mb-1">Payments, refunds and charges</h2>
      <table className="sheet-table">
        <tbody>
          {view.payments.map((payment) => (
            <tr key={payment.id}>
              <td className="w-[110px]">{displayDate(payment.date)}</td>
              <td>
                {TAX_PAYMENT_KINDS[payment.kind].offered} <span className="quiet">{payment.reference}</span>
              </td>
              <td className="num w-[140px]">
                <Figure
                  amount={payment.amount}
                  digits={digits}
                  of={`entry/${payment.entry}`}
                  label={TAX_PAYMENT_KINDS[payment.kind].offered}
                />
              </td>
              <td className="w-[90px]">
                <button type="button" className="word-link" onClick={() => onRemove(payment.id)}>
                  Take back
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Columns of the continuity, and how each goes into what is due at the end; some are left out where nothing is in them. */
const COLUMNS = [
  { id: "opening", head: "Opening", always: false },
  { id: "declared", head: "+ Declared", always: true },
  { id: "disclosed", head: "+ Separately", always: false },
  { id: "charges", head: "+ Charges", always: false },
  { id: "paid", head: "− Paid", always: true },
  { id: "refunded", head: "+ Refunded", always: false },
  { id: "closing", head: "= Closing", always: true },
] as const;

function Continuity({ view, digits }: { view: SettlementView; digits: number }) {
  const { registration } = useScope();
  if (view.continuity.length === 0) return null;
  const columns = COLUMNS.filter(({ id, always }) => always || view.continuity.some((row) => row[id] !== 0));
  return (
    <section aria-label="Continuity" className="mt-6 shrink-0 overflow-x-auto">
      <h2 className="mb-1">Continuity: what is due, period by period</h2>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Period to</th>
            <th>State</th>
            {columns.map(({ id, head }) => (
              <th key={id} className="num">
                {head}
              </th>
            ))}
            <th className="num">Ledger</th>
          </tr>
        </thead>
        <tbody>
          {view.continuity.map((row) => (
            <tr key={row.period}>
              <td className="whitespace-nowrap">{displayDate(row.period)}</td>
              <td>
                <StateMark state={row.state} />
              </td>
              {columns.map(({ id: column }) => (
                <td key={column} className="num">
                  <Figure
                    amount={row[column]}
                    digits={digits}
                    dash
                    of={
                      row[column] === 0 && column !== "closing"
                        ? null
                        : `continuity/${registration?.id}/${row.period}/${column}`
                    }
                    label={`${column}, period to ${displayDate(row.period)}`}
                  />
                </td>
              ))}
              <td className={row.ledger === row.closing ? "num text-success" : "num text-error"}>
                <Figure
                  amount={row.ledger}
                  digits={digits}
                  of={`continuity/${registration?.id}/${row.period}/ledger`}
                  label="Ledger"
                />{" "}
                {row.ledger === row.closing ? "✓" : "▲"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
