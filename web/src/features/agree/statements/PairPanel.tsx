import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Link } from "react-router";
import { displayAmount } from "@fiscalon/core/money/amount";
import { OUTCOMES } from "@fiscalon/core/agree/matching/outcomes";
import { DECISIONS } from "@fiscalon/contract/statements";
import type { MatchSide, MatchView, StatementView } from "@fiscalon/contract/statements";
import { useScope } from "../../../app/scope.ts";
import { showMoment } from "../../../kit/format.ts";

/** What can be done about a line, with its key. */
export interface PairAction {
  key: string;
  name: string;
  detail?: string;
  act: () => void;
}

/** Why two rows are a pair, what both papers say, and what can be said of it. */
export function PairPanel({
  line,
  view,
  actions,
}: {
  line: MatchView | undefined;
  view: StatementView;
  actions: readonly PairAction[];
}) {
  if (!line)
    return (
      <aside className="w-[236px] shrink-0" aria-label="The line">
        <p className="quiet">Choose a line to see why it stands where it does.</p>
      </aside>
    );
  const { ours, theirs, reasons, score, decision, outcome } = line;
  const { digits } = view;
  return (
    <aside className="w-[236px] shrink-0 overflow-y-auto" aria-label="The line">
      <h2 className="mb-1 text-[14px]">
        {ours.length > 0 && theirs.length > 0 ? "Why these are a pair" : OUTCOMES[outcome]}
      </h2>
      {reasons.length > 0 && (
        <table className="mb-2 w-full text-[12.5px]">
          <tbody>
            {reasons.map(({ words, weight }) => (
              <tr key={words} className="border-b border-base-300">
                <td className="py-0.5">{capital(words)}</td>
                <td className="num text-right">{weight}</td>
              </tr>
            ))}
            <tr className="font-semibold">
              <td className="py-1">Score, out of 100</td>
              <td className="num text-right">{score}</td>
            </tr>
          </tbody>
        </table>
      )}
      {decision?.decision === "pair" && <p className="quiet mb-3">Paired by hand.</p>}
      <Papers title="Ours" sides={ours} digits={digits} />
      <Papers title="Theirs" sides={theirs} digits={digits} />
      {decision && (
        <p className="quiet mb-2">
          {capital(DECISIONS[decision.decision])}: {decision.by}, {showMoment(decision.at)}
          {decision.reason === "" ? "" : `, ${decision.reason}`}
        </p>
      )}
      <div className="no-print grid grid-cols-[minmax(0,1fr)] gap-1">
        {actions.map(({ key, name, detail, act }) => (
          <button
            key={key}
            type="button"
            className="action flex min-w-0 items-center gap-2 !px-2 !py-1 text-left text-[13px]"
            onClick={act}
          >
            <kbd className="kbd kbd-sm">{key}</kbd>
            <span className="shrink-0 font-semibold">{name}</span>
            {detail && <span className="quiet ml-auto truncate text-[11.5px] font-normal">{detail}</span>}
          </button>
        ))}
      </div>
    </aside>
  );
}

function Papers({ title, sides, digits }: { title: string; sides: readonly MatchSide[]; digits: number }) {
  const { path } = useScope();
  if (sides.length === 0) return null;
  return (
    <div className="mb-2">
      <h3 className="text-[12.5px] font-semibold">{title}</h3>
      {sides.map(({ id, number, date, value, tax, taxes, note, link, held }) => (
        <div key={id} className="border-b border-base-300 py-1 text-[13px]">
          <div className="flex justify-between gap-2">
            {link !== null ? (
              <Link className="word-link num" to={path(link)}>
                {number || "without number"}
              </Link>
            ) : (
              <span className="num">{number || "without number"}</span>
            )}
            <span>{displayDate(date)}</span>
          </div>
          <div className="num flex justify-between gap-2">
            <span>{displayAmount(value, digits)}</span>
            <span>{displayAmount(tax, digits)}</span>
          </div>
          <div className="quiet text-[12px]">
            {Object.entries(taxes)
              .map(([levy, amount]) => `${levy} ${displayAmount(amount, digits)}`)
              .join(", ")}
          </div>
          {held !== null && (
            <div className="text-[12px] text-warning">
              {held === "waiting" ? "its credit is held back" : `credit held back until ${displayDate(held)}`}
            </div>
          )}
          {note !== "" && <div className="text-[12px] text-info">{note}</div>}
        </div>
      ))}
    </div>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
