import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import type { BridgeView } from "@fiscalon/contract/bridge";
import { displayAmount } from "@fiscalon/core/money/amount";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showMoment } from "../../kit/format.ts";
import { BridgeBy } from "./BridgeBy.tsx";
import { DragRows } from "./DragRows.tsx";
import { BridgeRows } from "./BridgeRows.tsx";
import { Bar, BridgeColumns, BridgeLine, CauseName, RowsFigure, scaleOf } from "./WaterfallRow.tsx";

import { WORDS } from "./bridgeWords.ts";

/** The bridge as a waterfall with its rows, what people said of it, and both figures put together line by line. */
export function BridgeSheet({ view, rid }: { view: BridgeView; rid: number }) {
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
  const openRows = (amount: number, name: string) => (
    <RowsFigure amount={amount} digits={digits} name={name} onToggle={() => toggle("")} />
  );
  const inBoxes = declared.map((one) => ({
    ref: `box/${rid}/${one.to}/${one.box}`,
    label: `Box ${one.box}, to ${displayDate(one.to)}`,
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
                    <RowsFigure amount={amount} digits={digits} name={name} onToggle={() => toggle(id)} />
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
                amount={openRows(open.amount, "Without a cause")}
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
              amount={rest === 0 ? displayAmount(rest, digits) : openRows(rest, "Left")}
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
