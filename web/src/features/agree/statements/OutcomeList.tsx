import clsx from "clsx";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import type { Outcome } from "@fiscalon/core/agree/matching/outcomes";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { StatementView } from "@fiscalon/contract/statements";

const MARKS: Record<Outcome, readonly [mark: string, tone: string]> = {
  agreed: ["✓", "text-success"],
  tolerance: ["✓", "text-success"],
  amount: ["◆", "text-warning"],
  kind: ["◆", "text-warning"],
  place: ["◆", "text-warning"],
  number: ["◆", "text-warning"],
  date: ["◆", "text-warning"],
  party: ["◆", "text-warning"],
  parts: ["◆", "text-warning"],
  "only-ours": ["▲", "text-error"],
  "only-theirs": ["▲", "text-error"],
  "doubled-ours": ["▲", "text-error"],
  "doubled-theirs": ["▲", "text-error"],
  ineligible: ["◑", "text-info"],
};

/** How the documents of both sides stand, with the figures between the two; an outcome is chosen to see its lines. */
export function OutcomeList({
  view,
  chosen,
  onChoose,
}: {
  view: StatementView;
  chosen: Outcome | "";
  onChoose: (outcome: Outcome | "") => void;
}) {
  const { digits, basis, outcomes, oursTotal, theirsTotal } = view;
  const of = basis === "gross" ? "value" : "tax";
  const apart = (one: { oursTax: number; theirsTax: number; oursValue: number; theirsValue: number }) =>
    of === "tax" ? one.theirsTax - one.oursTax : one.theirsValue - one.oursValue;
  const figure = (amount: number) => (amount === 0 ? "–" : displayAmount(amount, digits));
  const word = of === "tax" ? "tax" : "value";
  return (
    <div className="w-[306px] shrink-0 overflow-y-auto overflow-x-hidden text-[12.5px]">
      <table className="sheet-table [&_td]:!px-[3px] [&_td]:!py-[2px] [&_th]:!px-[3px] [&_.num]:tracking-tight">
        <thead>
          <tr>
            <th>Outcome</th>
            <th className="num">ours</th>
            <th className="num">theirs</th>
            <th className="num">{word} apart</th>
          </tr>
        </thead>
        <tbody>
          {outcomes.map((one) => {
            const [mark, tone] = MARKS[one.outcome];
            return (
              <tr key={one.outcome} className={clsx(chosen === one.outcome && "bg-accent font-semibold")}>
                <td>
                  <button
                    type="button"
                    className="flex w-full items-baseline gap-1.5 text-left"
                    aria-pressed={chosen === one.outcome}
                    onClick={() => onChoose(chosen === one.outcome ? "" : one.outcome)}
                  >
                    <span className={tone} aria-hidden>
                      {mark}
                    </span>
                    <span className="whitespace-nowrap">{OUTCOMES[one.outcome]}</span>
                  </button>
                </td>
                <td className="num">{one.ours || "–"}</td>
                <td className="num">{one.theirs || "–"}</td>
                <td className="num">{figure(apart(one))}</td>
              </tr>
            );
          })}
          <tr className="font-semibold">
            <td>
              <button
                type="button"
                className="w-full text-left"
                aria-pressed={chosen === ""}
                onClick={() => onChoose("")}
              >
                All
              </button>
            </td>
            <td className="num">{oursTotal.rows}</td>
            <td className="num">{theirsTotal.rows}</td>
            <td className="num">{figure(theirsTotal[of] - oursTotal[of])}</td>
          </tr>
        </tbody>
      </table>
      <dl className="mt-3 grid grid-cols-[1fr_auto] gap-y-1 px-1">
        <dt>Our {word}</dt>
        <dd className="num">{displayAmount(oursTotal[of], digits)}</dd>
        <dt>Apart, as above</dt>
        <dd className="num">{displayAmount(theirsTotal[of] - oursTotal[of], digits)}</dd>
        <dt className="border-t pt-1 font-semibold">Their {word}</dt>
        <dd className="num border-t pt-1 font-semibold">{displayAmount(theirsTotal[of], digits)}</dd>
      </dl>
    </div>
  );
}
