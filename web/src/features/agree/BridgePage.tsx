import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeView } from "@fiscalon/contract/bridge";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileLinks } from "../../kit/FileLinks.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate, showMoment, showPeriod } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { AgreeDialog } from "./AgreeDialog.tsx";
import { BridgeBy } from "./BridgeBy.tsx";
import { DragRows } from "./DragRows.tsx";
import { BridgeRows } from "./BridgeRows.tsx";
import { Bar, BridgeColumns, BridgeLine, CauseName, scaleOf } from "./WaterfallRow.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";
import { SpanFields } from "./SpanFields.tsx";

export const BRIDGE = "/clients/:id/registrations/:rid/bridge";

const STATES: Record<BridgeView["state"], string> = {
  open: "not agreed yet",
  agreed: "agreed",
  accepted: "agreed with what is left",
  changed: "changed since it was agreed",
};

/** What the two sides of a bridge are called. */
const WORDS: Record<
  BridgeOf,
  { title: string; tab: string; from: string; income: string; posted: string; value: string; lead: string }
> = {
  turnover: {
    title: "Turnover bridge",
    tab: "Turnover",
    from: "Income in the profit and loss account",
    income: "Income",
    posted: "What was posted to income accounts in these days, credit positive.",
    value: "Value of sales on the returns",
    lead: "From income in the profit and loss account to what the returns declare. A solid step adds, a hatched one takes off.",
  },
  purchases: {
    title: "Purchases bridge",
    tab: "Purchases",
    from: "Costs in the profit and loss account",
    income: "Costs",
    posted: "What was posted to cost accounts in these days, debit positive.",
    value: "Value of purchases on the returns",
    lead: "From costs in the profit and loss account to the purchases on the returns. A solid step adds, a hatched one takes off.",
  },
};

/** From income in the profit and loss account to the turnover boxes, cause by cause. */
export function TurnoverPage() {
  return <BridgePage key="turnover" of="turnover" />;
}

/** From costs in the profit and loss account to the purchases on the returns, cause by cause. */
export function PurchasesPage() {
  return <BridgePage key="purchases" of="purchases" />;
}

/** A bridge of a side; what nobody knows is named here. */
function BridgePage({ of }: { of: BridgeOf }) {
  const words = WORDS[of];
  const { client, registration, period, periods } = useScope();
  const [span, setSpan] = useState<{ from: string; to: string } | null>(null);
  const [agreeing, setAgreeing] = useState(false);
  const chosen = span ?? (period ? { from: period.from, to: period.to } : null);
  const parts = [client?.id, registration?.id];
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", of, registration?.id, chosen),
    queryFn: () => api.get(BRIDGE, [client?.id, registration?.id], { of, ...chosen }),
    enabled: registration !== undefined && chosen !== null,
  });
  const links = <AgreeLinks />;
  if (!registration || !chosen)
    return (
      <Sheet title={words.tab} actions={links}>
        <EmptyState title="Nothing to compare yet">
          The profit and loss account and the returns are compared period by period, once there is a
          registration.
        </EmptyState>
      </Sheet>
    );
  const past = periods.filter(({ state }) => state !== "ahead");
  const isOne = periods.some(({ from, to }) => from === chosen.from && to === chosen.to);
  return (
    <Sheet
      title={`${words.title}, ${isOne ? showPeriod(chosen.from, chosen.to) : `${showDate(chosen.from)} to ${showDate(chosen.to)}`}`}
      aside={view && STATES[view.state]}
      actions={links}
      lead={words.lead}
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <SpanFields periods={past} span={chosen} onChange={setSpan} />
        <span className="ml-auto flex items-center gap-4">
          <FileLinks href={`/api${filled(BRIDGE, parts)}/file`} query={{ of, ...chosen }} />
          {view && (
            <button type="button" className="btn btn-primary" onClick={() => setAgreeing(true)}>
              {view.rest === 0 ? "Agree at 0.00" : "Accept with what is left …"}
            </button>
          )}
        </span>
      </div>
      <ErrorNote error={error} />
      {!view && !error && <Waiting what={`the ${words.tab.toLowerCase()}`} />}
      {view && <BridgeSheet view={view} rid={registration.id} />}
      {view && agreeing && (
        <AgreeDialog view={view} rid={registration.id} onClose={() => setAgreeing(false)} />
      )}
    </Sheet>
  );
}

function BridgeSheet({ view, rid }: { view: BridgeView; rid: number }) {
  const { of, digits, left, right, causes, open, rest, boxes, accounts, declared, from, to } = view;
  const words = WORDS[of];
  const [shown, setShown] = useState<string | null>(open.rows > 0 ? "" : null);
  const sums = causes.reduce((all, { amount }) => [...all, (all.at(-1) ?? 0) + amount], [left]);
  const scale = scaleOf([...sums, right, left]);
  const toggle = (id: string) => setShown(shown === id ? null : id);
  const figure = (
    amount: number,
    title: string,
    words: string,
    list: { ref: string; label: string; amount: number }[],
  ) => (
    <Figure
      amount={amount}
      digits={digits}
      label={title}
      of={{
        ref: `bridge/${of}/${from}/${to}/${title}`,
        title,
        amount,
        digits,
        words: [words],
        parts: list.map((part) => ({ ...part, detail: "" })),
        arithmetic: [],
      }}
    />
  );
  const inBoxes = declared.map((one) => ({
    ref: `box/${rid}/${one.to}/${one.box}`,
    label: `Box ${one.box}, to ${one.to}`,
    amount: one.amount,
  }));
  const box =
    boxes.length === 0 ? words.value : `${boxes.length === 1 ? "Box" : "Boxes"} ${boxes.join(", ")}`;
  return (
    <>
      <DragRows>
        <table className="sheet-table table-fixed">
          <BridgeColumns />
          <thead>
            <tr>
              <th>Cause</th>
              <th className="num">Amount</th>
              <th>Step</th>
              <th>Found by</th>
            </tr>
          </thead>
          <tbody>
            <BridgeLine
              strong
              name={words.from}
              detail={plural(accounts.length, "account")}
              amount={figure(
                left,
                words.income,
                words.posted,
                accounts.map(({ code, name, amount }) => ({
                  ref: `account/${code}/${from}/${to}`,
                  label: `${code} ${name}`,
                  amount,
                })),
              )}
              bar={<Bar scale={scale} from={left} to={left} sum />}
            />
            {causes.map(({ id, name, amount, rows, found }, index) => [
              <BridgeLine
                key={id}
                name={
                  rows === 0 ? (
                    name
                  ) : (
                    <CauseName name={name} shown={shown === id} onToggle={() => toggle(id)} />
                  )
                }
                detail={rows === 0 ? "" : plural(rows, "row")}
                amount={
                  rows === 0 ? (
                    figure(amount, name, "Worked out from the boxes.", inBoxes)
                  ) : (
                    <button
                      type="button"
                      className="figure"
                      aria-label={`${name} ${displayAmount(amount, digits)}, open rows`}
                      onClick={() => toggle(id)}
                    >
                      {displayAmount(amount, digits)}
                    </button>
                  )
                }
                bar={<Bar scale={scale} from={sums[index] ?? left} to={sums[index + 1] ?? right} />}
                found={found}
              />,
              shown === id && (
                <BridgeRows
                  key={`${id} rows`}
                  view={view}
                  rid={rid}
                  cause={id}
                  byPerson={found === "person"}
                />
              ),
            ])}
            {open.rows > 0 && (
              <BridgeLine
                name={<CauseName name="Without a cause" shown={shown === ""} onToggle={() => toggle("")} />}
                detail={`${plural(open.rows, "row")} to be named`}
                amount={displayAmount(open.amount, digits)}
                bar={
                  <Bar scale={scale} from={sums.at(-1) ?? left} to={(sums.at(-1) ?? left) + open.amount} />
                }
                found="nobody yet"
              />
            )}
            {open.rows > 0 && shown === "" && <BridgeRows view={view} rid={rid} cause="" byPerson />}
            <BridgeLine
              strong
              name={`Declared, ${view.form}`}
              detail={box}
              amount={figure(
                right,
                "Declared",
                boxes.length === 0
                  ? `The form has no boxes of it. ${words.value}.`
                  : "The boxes as they are filed, or would be.",
                inBoxes,
              )}
              bar={<Bar scale={scale} from={right} to={right} sum />}
            />
            <BridgeLine
              name={<span className={rest === 0 ? "text-success" : "text-warning"}>Left</span>}
              detail={
                rest === 0 ? "nothing is left to explain" : `${plural(open.rows, "row")} without a cause`
              }
              amount={displayAmount(rest, digits)}
              bar={null}
            />
          </tbody>
        </table>
      </DragRows>
      <AgreedNote view={view} />
      <BridgeBy
        view={view}
        rid={rid}
        inBoxes={(amount, title) => figure(amount, title, "Worked out from the boxes.", inBoxes)}
      />
    </>
  );
}

function AgreedNote({ view: { agreed, changed, digits } }: { view: BridgeView }) {
  if (!agreed) return null;
  return (
    <div className="quiet mt-3">
      Agreed by {agreed.by}, {showMoment(agreed.at)}
      {agreed.note === "" ? "." : `: ${agreed.note}`}
      {changed.length > 0 && (
        <ul className="mt-1 text-warning">
          {changed.map(({ name, before, now }) => (
            <li key={name}>
              {name}: {displayAmount(before, digits)} then, {displayAmount(now, digits)} now
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
