import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ReactNode } from "react";
import { displayAmount } from "@fiscalon/core/money/amount";
import { BRIDGE_BY } from "@fiscalon/contract/bridge";
import type { BridgeBy as By, BridgeByRow, BridgeView } from "@fiscalon/contract/bridge";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showMonth } from "../../kit/format.ts";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { CauseName, MoreRows, RowsFigure } from "./WaterfallRow.tsx";

const PAGE = 50;
const BY = "/clients/:id/registrations/:rid/bridge/by";
const LINES = "/clients/:id/registrations/:rid/bridge/by/lines";
const VIEWS = Object.entries(BRIDGE_BY) as [By, string][];

/**
 * The two figures of a bridge put together by month, account, party, treatment or rate; each part opens its lines.
 * @param inBoxes opens the boxes an amount is worked out from
 */
export function BridgeBy({
  view: { of, from, to, digits, right },
  rid,
  inBoxes,
}: {
  view: BridgeView;
  rid: number;
  inBoxes: (amount: number, title: string) => ReactNode;
}) {
  const { client } = useScope();
  const [by, setBy] = useState<By>("month");
  const [shown, setShown] = useState<string | null>(null);
  const { data: rows, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", of, rid, { from, to, by }),
    queryFn: ({ signal }) => api.get(BY, [client?.id, rid], { of, from, to, by }, signal),
  });
  return (
    <section className="mt-6" aria-label="Line by line">
      <div className="mb-1 flex items-baseline gap-5">
        <h2>Line by line</h2>
        <ViewTabs
          label="Put together by"
          views={VIEWS}
          chosen={by}
          onChoose={(id) => {
            setBy(id);
            setShown(null);
          }}
        />
      </div>
      <ErrorNote error={error} />
      {!rows && !error && <Waiting what="the lines" />}
      {rows && (
        <table className="sheet-table table-fixed">
          <Head by={by} />
          <tbody>
            {rows.map((row) => [
              <Part
                key={row.key}
                row={row}
                by={by}
                digits={digits}
                shown={shown === row.key}
                onToggle={() => setShown(shown === row.key ? null : row.key)}
              />,
              shown === row.key && (
                <Lines
                  key={`${row.key} lines`}
                  ask={{ of, from, to, by, key: row.key }}
                  rid={rid}
                  digits={digits}
                />
              ),
            ])}
            <OnlyInBoxes amount={right - added(rows, "base")} digits={digits} figure={inBoxes} />
            <tr className="bg-base-200 font-semibold">
              <td>All</td>
              <td className="num">{displayAmount(added(rows, "ledger"), digits)}</td>
              <td className="num">{inBoxes(right, "In the boxes")}</td>
              <td className="num">{displayAmount(right - added(rows, "ledger"), digits)}</td>
            </tr>
          </tbody>
        </table>
      )}
    </section>
  );
}

function added(rows: readonly BridgeByRow[], figure: "ledger" | "base"): number {
  return rows.reduce((sum, row) => sum + row[figure], 0);
}

/** What is of no line: schemes, adjustments by hand, rounding, changes since the return was sealed. */
function OnlyInBoxes({
  amount,
  digits,
  figure,
}: {
  amount: number;
  digits: number;
  figure: (amount: number, title: string) => ReactNode;
}) {
  if (amount === 0) return null;
  const name = "Only in the boxes: schemes, by hand, rounding";
  return (
    <tr>
      <td className="!whitespace-normal">{name}</td>
      <td className="num quiet">–</td>
      <td className="num">{figure(amount, name)}</td>
      <td className="num">{displayAmount(amount, digits)}</td>
    </tr>
  );
}

function Head({ by }: { by: By }) {
  return (
    <>
      <colgroup>
        <col />
        <col className="w-[165px]" />
        <col className="w-[165px]" />
        <col className="w-[165px]" />
      </colgroup>
      <thead>
        <tr>
          <th>{BRIDGE_BY[by]}</th>
          <th className="num">In the books</th>
          <th className="num">In the boxes</th>
          <th className="num">Apart</th>
        </tr>
      </thead>
    </>
  );
}

function Part({
  row: { key, ledger, base, rows },
  by,
  digits,
  shown,
  onToggle,
}: {
  row: BridgeByRow;
  by: By;
  digits: number;
  shown: boolean;
  onToggle: () => void;
}) {
  const name = nameOf(by, key);
  const opens = (amount: number, what: string) => (
    <RowsFigure amount={amount} digits={digits} name={`${name} ${what}`} onToggle={onToggle} />
  );
  return (
    <tr>
      <td className="!whitespace-normal">
        <CauseName name={name} shown={shown} onToggle={onToggle} />
        <span className="quiet ml-1.5 text-[12.5px]">{plural(rows, "line")}</span>
      </td>
      <td className="num">{opens(ledger, "in the books")}</td>
      <td className="num">{opens(base, "in the boxes")}</td>
      <td className={base === ledger ? "num quiet" : "num"}>{displayAmount(base - ledger, digits)}</td>
    </tr>
  );
}

function nameOf(by: By, key: string): string {
  if (key === "") return by === "party" ? "No party" : "On no return";
  switch (by) {
    case "month":
      return showMonth(key);
    case "treatment":
      return key.replaceAll("-", " ").replace(/^./, (letter) => letter.toUpperCase());
    case "rate":
      return `${key} %`;
    default:
      return key;
  }
}

function Lines({
  ask,
  rid,
  digits,
}: {
  ask: Pick<BridgeView, "of" | "from" | "to"> & { by: By; key: string };
  rid: number;
  digits: number;
}) {
  const { client } = useScope();
  const [limit, setLimit] = useState(PAGE);
  const { data: page, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", ask.of, rid, { ...ask, limit }),
    queryFn: ({ signal }) => api.get(LINES, [client?.id, rid], { ...ask, offset: 0, limit }, signal),
    placeholderData: (before) => before,
  });
  if (error || !page)
    return (
      <tr>
        <td colSpan={4}>{error ? <ErrorNote error={error} /> : <span className="quiet">…</span>}</td>
      </tr>
    );
  return (
    <>
      {page.rows.map(({ ref, date, number, party, text, ledger, base }) => {
        const what = [party, text].filter((part) => part !== "").join(": ");
        const figure = (amount: number) => (
          <Figure amount={amount} digits={digits} of={ref} label={number || what} dash />
        );
        return (
          <tr key={ref} className="text-[13.5px]">
            <td className="pl-8 !whitespace-normal">
              {number && <span className="num mr-2">{number}</span>}
              {what} <span className="quiet ml-1">{displayDate(date)}</span>
            </td>
            <td className="num">{figure(ledger)}</td>
            <td className="num">{figure(base)}</td>
            <td className={base === ledger ? "num quiet" : "num"}>{displayAmount(base - ledger, digits)}</td>
          </tr>
        );
      })}
      <MoreRows left={page.total - page.rows.length} onMore={() => setLimit(limit + PAGE)} />
    </>
  );
}
