import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { BalanceView } from "@fiscalon/contract/balances";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { DateField } from "../../kit/DateField.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, today } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { AuthorityBalanceDialog } from "./AuthorityBalanceDialog.tsx";
import { Bar, BridgeColumns, BridgeLine, CauseName, MoreRows, RowsFigure, scaleOf } from "./WaterfallRow.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";

const BALANCES = "/clients/:id/balances";
const PAGE = 50;

/** Debtors, creditors and banks on the last day of the period, each against its open items or lines. */
export function BalancesPage() {
  const { client, registration, period } = useScope();
  const [typing, setTyping] = useState(false);
  const [typed, setTyped] = useState<string | null>(null);
  const on = typed ?? (period && period.to < today() ? period.to : today());
  const { data: views, error } = useQuery({
    queryKey: keys.of(client?.id, "balances", on),
    queryFn: ({ signal }) => api.get(BALANCES, [client?.id], { on }, signal),
    enabled: client !== undefined && on !== "",
  });
  return (
    <Sheet
      title={`Balances on ${displayDate(on)}`}
      actions={<AgreeLinks />}
      lead="What the ledger holds against what stands behind it. What one side has and the other has not is listed by cause."
    >
      <div className="no-print mb-3 flex items-end gap-4">
        <DateField label="On" value={on} onChange={setTyped} />
        {registration && (
          <button type="button" className="word-link pb-2" onClick={() => setTyping(true)}>
            What the authority says is owed …
          </button>
        )}
      </div>
      <ErrorNote error={error} />
      {!views && !error && <Waiting what="the balances" />}
      {views?.length === 0 && (
        <EmptyState title="Nothing to agree">
          No customer, supplier or bank account has a balance on this day.
        </EmptyState>
      )}
      {views?.map((view) => (
        <BalanceSheet key={view.id} view={view} on={on} />
      ))}
      {typing && registration && (
        <AuthorityBalanceDialog
          rid={registration.id}
          on={on}
          seen={seenOf(views)}
          onClose={() => setTyping(false)}
        />
      )}
    </Sheet>
  );
}

function BalanceSheet({ view, on }: { view: BalanceView; on: string }) {
  const { minorDigits: digits, path } = useScope();
  const [shown, setShown] = useState<string | null>(null);
  const { id, name, leftName, rightName, path: kept, leftRef, left, right, causes, rest } = view;
  const sums = causes.reduce((all, { amount }) => [...all, (all.at(-1) ?? 0) + amount], [left]);
  const scale = scaleOf([...sums, right]);
  const keptLink = (amount: number) => (
    <Link className="figure" to={path(kept)}>
      {displayAmount(amount, digits)}
    </Link>
  );
  const toggle = (cause: string) => setShown(shown === cause ? null : cause);
  return (
    <section aria-label={name} className="mb-7">
      <h2 className="mb-1 flex items-baseline gap-3">
        {name}
        <span className={rest === 0 ? "quiet text-[13px]" : "text-[13px] text-warning"}>
          {rest === 0 ? "agreed, nothing left" : `${displayAmount(rest, digits)} left`}
        </span>
      </h2>
      <table className="sheet-table table-fixed">
        <BridgeColumns />
        <tbody>
          <BridgeLine
            strong
            name={leftName}
            amount={
              leftRef === null ? (
                keptLink(left)
              ) : (
                <Figure amount={left} digits={digits} of={leftRef} label={`${name}, ${leftName}`} />
              )
            }
            bar={<Bar scale={scale} from={left} to={left} sum />}
          />
          {causes.map(({ id: cause, name: words, amount, rows }, index) => [
            <BridgeLine
              key={cause}
              name={<CauseName name={words} shown={shown === cause} onToggle={() => toggle(cause)} />}
              detail={plural(rows, "row")}
              amount={
                <RowsFigure amount={amount} digits={digits} name={words} onToggle={() => toggle(cause)} />
              }
              bar={<Bar scale={scale} from={sums[index] ?? left} to={sums[index + 1] ?? right} />}
            />,
            shown === cause && <CauseRows key={`${cause} rows`} on={on} of={id} cause={cause} />,
          ])}
          <BridgeLine
            strong
            name={
              <Link className="word-link" to={path(kept)}>
                {rightName}
              </Link>
            }
            amount={keptLink(right)}
            bar={<Bar scale={scale} from={right} to={right} sum />}
          />
        </tbody>
      </table>
    </section>
  );
}

function CauseRows({ on, of, cause }: { on: string; of: string; cause: string }) {
  const { client, minorDigits: digits } = useScope();
  const [limit, setLimit] = useState(PAGE);
  const { data: page, error } = useQuery({
    queryKey: keys.of(client?.id, "balances", on, { of, cause, limit }),
    queryFn: ({ signal }) =>
      api.get(`${BALANCES}/rows`, [client?.id], { on, of, cause, offset: 0, limit }, signal),
    placeholderData: (before) => before,
  });
  return (
    <>
      {error && (
        <tr>
          <td colSpan={4}>
            <ErrorNote error={error} />
          </td>
        </tr>
      )}
      {page?.rows.map(({ ref, date, number, party, text, amount }, index) => (
        <tr key={`${ref} ${index}`} className="text-[13.5px]">
          <td className="pl-8 !whitespace-normal">
            {number && <span className="num mr-2">{number}</span>}
            {[party, text].filter((part) => part !== "").join(": ")}
          </td>
          <td className="num">
            <Figure amount={amount} digits={digits} of={ref} label={number || text} />
          </td>
          <td />
          <td className="quiet">{displayDate(date)}</td>
        </tr>
      ))}
      {page && <MoreRows left={page.total - page.rows.length} onMore={() => setLimit(limit + PAGE)} />}
    </>
  );
}
