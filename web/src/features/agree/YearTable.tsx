import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { ON_RETURN, YEAR_CAUSES } from "@fiscalon/core/agree/yearRollUp";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { YearBox, YearView } from "@fiscalon/contract/yearRollUp";
import { Figure } from "../../kit/Figure.tsx";

type Cause = keyof typeof YEAR_CAUSES;

/** Each box of a year: its ledger, every cause, and what the returns declare; all of them open. */
export function YearTable({ view, rid }: { view: YearView; rid: number }) {
  const { boxes, digits, yearly } = view;
  const used = (Object.keys(YEAR_CAUSES) as Cause[]).filter((id) =>
    boxes.some((box) => amountOf(box, id) !== 0),
  );
  return (
    <>
      <div className="overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Box</th>
              <th className="num">Ledger of the year</th>
              {used.map((id) => (
                <th key={id} className="num max-w-[130px] !whitespace-normal">
                  {YEAR_CAUSES[id]}
                </th>
              ))}
              <th className="num">Declared</th>
              <th className="num">Left</th>
            </tr>
          </thead>
          <tbody>
            {boxes.map((box) => (
              <Row key={box.box} box={box} used={used} view={view} rid={rid} />
            ))}
          </tbody>
        </table>
      </div>
      {yearly && (
        <section className="mt-6">
          <h2 className="mb-1">{yearly.form}, as the ledger of the year would fill it</h2>
          <table className="sheet-table">
            <tbody>
              {yearly.boxes.map(({ box, title, amount }) => (
                <tr key={box}>
                  <td>
                    <span className="num mr-2 font-semibold">{box}</span>
                    {title}
                  </td>
                  <td className="num">
                    <Figure
                      amount={amount}
                      digits={digits}
                      label={`Box ${box}`}
                      of={boxOfStretch(view, rid, "annual", box)}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {yearly.ties.map(({ says, report, returns }) => (
            <p key={says} className="mt-2">
              {says}: <span className="num">{displayAmount(report, digits)}</span>; on the returns{" "}
              <span className="num">{displayAmount(returns, digits)}</span>
              {report === returns ? (
                <span className="text-success"> ✓</span>
              ) : (
                <span className={isClose(report, returns) ? "quiet" : "text-warning"}>
                  , <span className="num">{displayAmount(returns - report, digits)}</span> apart
                </span>
              )}
            </p>
          ))}
        </section>
      )}
    </>
  );
}

function Row({
  box,
  used,
  view,
  rid,
}: {
  box: YearBox;
  used: readonly Cause[];
  view: YearView;
  rid: number;
}) {
  const { digits } = view;
  const declared = stepOf(view, box, {
    title: "Declared",
    amount: box.declared,
    words: ["The returns of the year, as they are filed or would be."],
    parts: onReturns(rid, box, (one) => one.declared),
  });
  return (
    <tr>
      <td className="!whitespace-normal">
        <span className="num mr-2 font-semibold">{box.box}</span>
        {box.title}
      </td>
      <td className="num">
        <Figure
          amount={box.ledger}
          digits={digits}
          label={`Box ${box.box} by the ledger`}
          of={boxOfStretch(view, rid, "own", box.box)}
        />
      </td>
      {used.map((id) => (
        <td key={id} className="num">
          <Figure
            amount={amountOf(box, id)}
            digits={digits}
            dash
            label={`Box ${box.box}: ${YEAR_CAUSES[id]}`}
            of={amountOf(box, id) === 0 ? null : causeStep(view, rid, box, id)}
          />
        </td>
      ))}
      <td className="num">
        <Figure amount={box.declared} digits={digits} label={`Box ${box.box} of the year`} of={declared} />
      </td>
      <td className={box.rest === 0 ? "num" : "num text-warning"}>
        <Figure
          amount={box.rest}
          digits={digits}
          label={`Box ${box.box} left`}
          of={stepOf(view, box, {
            title: "Left",
            amount: box.rest,
            words: ["What the returns declare, less the ledger of the year and every cause."],
            parts: [
              { ref: null, label: "Declared", detail: "", amount: box.declared },
              { ref: null, label: "Ledger of the year", detail: "taken off", amount: -box.ledger },
              ...box.causes.map(({ name, amount }) => ({
                ref: null,
                label: name,
                detail: "taken off",
                amount: -amount,
              })),
            ],
          })}
        />
      </td>
    </tr>
  );
}

/** Rounding return by return keeps the two a little apart; more than half a percent is something to look for. */
function isClose(report: number, returns: number): boolean {
  return Math.abs(returns - report) * 200 <= Math.abs(returns);
}

function amountOf({ causes }: YearBox, id: Cause): number {
  return causes.find((cause) => cause.id === id)?.amount ?? NOTHING;
}

/** A cause that is not there comes to nothing. */
const NOTHING = 0;

/** A box worked out from facts of the year as if it were one period. */
function boxOfStretch({ from, to }: YearView, rid: number, which: string, box: string): string {
  return `box/${rid}/${which}.${from}.${to}/${box}`;
}

function onReturns(
  rid: number,
  box: YearBox,
  amount: (one: YearBox["returns"][number]) => number,
): TrailPart[] {
  return box.returns.map((one) => ({
    ref: `box/${rid}/${one.to}/${box.box}`,
    label: `Return to ${displayDate(one.to)}`,
    amount: amount(one),
    detail: one.state,
  }));
}

function stepOf(
  { digits, from, to }: YearView,
  { box }: YearBox,
  { title, ...step }: Pick<TrailStep, "title" | "amount" | "words" | "parts">,
): TrailStep {
  return {
    ref: `year/${from}/${to}/${box}/${title}`,
    title: `Box ${box}: ${title}`,
    digits,
    arithmetic: [],
    ...step,
  };
}

/** What a cause is made of: the box of facts that are late, a part of each return, or both where the form works it out. */
function causeStep(view: YearView, rid: number, box: YearBox, id: Cause): string | TrailStep {
  const whole = (which: string) => boxOfStretch(view, rid, which, box.box);
  const step = (words: string, parts: TrailPart[]) =>
    stepOf(view, box, { title: YEAR_CAUSES[id], amount: amountOf(box, id), words: [words], parts });
  switch (id) {
    case "late-in":
      return whole("earlier");
    case "late-out":
      return step("Taken off, because no return of the year reports it.", [
        { ref: whole("unreported"), label: YEAR_CAUSES[id], detail: "", amount: -amountOf(box, id) },
      ]);
    case "form":
      return step(
        "The box worked out return by return, less the box worked out from the whole year at once.",
        [
          ...onReturns(rid, box, (one) => one.ofFacts),
          { ref: whole("own"), label: "Ledger of the year", detail: "taken off", amount: -box.ledger },
          ...(["late-in", "late-out"] as const).map((late) => ({
            ref: null,
            label: YEAR_CAUSES[late],
            detail: "taken off",
            amount: -amountOf(box, late),
          })),
        ],
      );
    default:
      return step(
        "What each return has of it.",
        onReturns(rid, box, (one) => ON_RETURN[id](one)).filter(({ amount }) => amount !== 0),
      );
  }
}
