import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { Link } from "react-router";
import type { CorrectionAnswer } from "@fiscalon/core/returns/corrections";
import type { LateDocument } from "@fiscalon/contract/returns";
import { useScope } from "../app/scope.ts";
import { Figure } from "../kit/Figure.tsx";
import { plural } from "../kit/format.ts";
import { onDemand } from "../kit/onDemand.tsx";
import { LATE_WORDS } from "./lateWords.ts";

const AnswerLate = onDemand(() => import("./AnswerLate.tsx").then((one) => one.AnswerLate));

/** Rows that are drawn before more are asked for, so that what stands below is near. */
const AT_ONCE = 50;
const MORE = 500;

/** What belongs to earlier periods and turned up in this one, and what the law says of it. */
export function LateItems({
  late,
  corrections = [],
  period,
}: {
  late: readonly LateDocument[];
  corrections?: readonly CorrectionAnswer[];
  /** The period whose return is still open, where what is said of an item can be changed. */
  period?: string | undefined;
}) {
  const { path, minorDigits: digits } = useScope();
  const [answering, setAnswering] = useState<LateDocument | null>(null);
  const [shown, setShown] = useState(AT_ONCE);
  if (late.length === 0) return null;
  return (
    <section aria-label="Late items" className="mt-6">
      <h2 className="mb-1">{plural(late.length, "late item")} in this period</h2>
      <div className="overflow-x-auto">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Document</th>
              <th>Party</th>
              <th>Date</th>
              <th>Of the period to</th>
              <th>What it is</th>
              <th className="num">Net</th>
              <th className="num">Output tax</th>
              <th className="num">Input tax</th>
              {period !== undefined && <th />}
            </tr>
          </thead>
          <tbody>
            {late.slice(0, shown).map((one) => (
              <tr key={one.document}>
                <td>
                  <Link
                    className="font-semibold hover:text-primary"
                    to={path(`books/documents/${one.document}`)}
                  >
                    {one.number}
                  </Link>
                </td>
                <td>{one.party}</td>
                <td className="whitespace-nowrap">{displayDate(one.date)}</td>
                <td className="whitespace-nowrap">{displayDate(one.own)}</td>
                <td>
                  {LATE_WORDS[one.kind]}
                  {one.separately && ", put right separately"}
                  {one.amends && ", among the amendments"}
                  {one.reason !== "" && <span className="quiet block text-[12px]">{one.reason}</span>}
                </td>
                {(["net", "output", "input"] as const).map((figure) => (
                  <td key={figure} className="num">
                    <Figure
                      amount={one[figure]}
                      digits={digits}
                      dash
                      of={one[figure] === 0 ? null : `document/${one.document}`}
                      label={`${figure} of ${one.number}`}
                    />
                  </td>
                ))}
                {period !== undefined && (
                  <td>
                    <button
                      type="button"
                      className="word-link"
                      aria-label={`Say what ${one.number} is`}
                      onClick={() => setAnswering(one)}
                    >
                      Say what it is
                    </button>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {late.length > shown && (
        <button type="button" className="word-link mt-2" onClick={() => setShown(shown + MORE)}>
          {late.length - shown > MORE
            ? `Show ${MORE} more of ${plural(late.length - shown, "late item")}`
            : `Show the other ${plural(late.length - shown, "late item")}`}
        </button>
      )}
      {corrections.map((answer) => (
        <p key={`${answer.periods.join()} ${answer.kind} ${answer.says}`} className="note-row mt-2">
          <span aria-hidden className={answer.stops ? "text-error" : "text-success"}>
            {answer.stops ? "▲" : "✓"}
          </span>{" "}
          <strong className="font-semibold">
            {plural(answer.count, "document")}, {LATE_WORDS[answer.kind]}:
          </strong>{" "}
          {answer.says}
          {answer.reason !== "" && `: ${answer.reason}`}.{" "}
          <span className="quiet text-[12px]">{answer.source}</span>
        </p>
      ))}
      {answering && period !== undefined && (
        <AnswerLate one={answering} period={period} onClose={() => setAnswering(null)} />
      )}
    </section>
  );
}
