import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import { displayAmount } from "@fiscalon/core/money/amount";
import { DECISIONS } from "@fiscalon/contract/statements";
import type { MatchSide, MatchView } from "@fiscalon/contract/statements";
import { plural } from "../../../kit/format.ts";

export const LINE_HEIGHT = 66;

/** What a line shows apart, at most so many pieces a side. */
const MOST = 3;

/** A pair as a hinge: what both say in the middle, what only one says, or says otherwise, at its side. */
export function PairLine({
  line,
  digits,
  marked,
  current,
  top,
  onMark,
  onOpen,
}: {
  line: MatchView;
  digits: number;
  marked: boolean;
  current: boolean;
  top: number;
  onMark: () => void;
  onOpen: () => void;
}) {
  const { ours, theirs, party, decision } = line;
  const pieces = piecesOf(line, digits);
  const shown = ours[0] ?? theirs[0];
  const numbers = ours.length + theirs.length > 2 ? bySide(ours, theirs) : (shown?.number ?? "");
  const both = ours.length > 0 && theirs.length > 0;
  return (
    <div
      className={clsx(
        "absolute inset-x-0 grid cursor-default grid-cols-[26px_minmax(0,1fr)_minmax(0,184px)_minmax(0,1fr)] border-b border-base-300",
        current && "bg-accent",
      )}
      style={{ top, height: LINE_HEIGHT }}
      role="row"
      aria-selected={current}
      onClick={onOpen}
    >
      <label className="flex items-center justify-center" role="cell">
        <input
          type="checkbox"
          checked={marked}
          onChange={onMark}
          onClick={(event) => event.stopPropagation()}
          aria-label={`Mark ${party} ${shown?.number ?? ""}`}
        />
      </label>
      <Pieces list={pieces.ours} align="right" />
      <div
        className="flex flex-col items-center justify-center overflow-hidden border-x border-base-300 bg-base-200 px-1.5 text-center leading-tight"
        role="cell"
      >
        <button type="button" className="max-w-full truncate font-semibold" onClick={onOpen}>
          {party || "No name"}
        </button>
        <span className="num max-w-full truncate text-[12.5px]">
          {numbers}
          {pieces.sameDate && shown && ` · ${displayDate(shown.date)}`}
        </span>
        <span className="quiet max-w-full truncate text-[12px]">
          {decision ? (
            <span className="text-success">✓ {DECISIONS[decision.decision]}</span>
          ) : (
            middle(line, digits, both)
          )}
        </span>
      </div>
      <Pieces list={pieces.theirs} align="left" />
    </div>
  );
}

function bySide(ours: readonly MatchSide[], theirs: readonly MatchSide[]): string {
  return `${ours.length} against ${theirs.length}`;
}

function middle({ ours, theirs, age, of, differs }: MatchView, digits: number, both: boolean): string {
  if (of !== "") return `again as ${of}`;
  if (!both) return age === null ? "" : `${plural(age, "day")} old`;
  const one = ours[0] ?? theirs[0];
  if (!one) return "";
  const rate = one.rate !== "" && !differs.includes("rate") ? ` at ${one.rate} %` : "";
  return differs.includes("value") ? rate.trim() : `${displayAmount(sum(ours, "value"), digits)}${rate}`;
}

/** The first number of a side, and how many more there are; the panel has them all. */
function firstAndMore(sides: readonly MatchSide[]): string {
  const more = sides.length > 1 ? ` + ${sides.length - 1}` : "";
  return `${sides[0]?.number ?? ""}${more}`;
}

interface ShownPiece {
  word: string;
  text: string;
  /** What the other side says, to mark where it is another. */
  other: string;
}

function sum(sides: readonly MatchSide[], field: "value" | "tax"): number {
  return sides.reduce((all, side) => all + side[field], 0);
}

function piecesOf(
  line: MatchView,
  digits: number,
): { ours: ShownPiece[]; theirs: ShownPiece[]; sameDate: boolean } {
  const { ours, theirs } = line;
  const both = ours.length > 0 && theirs.length > 0;
  const amounts = ["value", "tax"] as const;
  if (!both) {
    const list = (sides: readonly MatchSide[]) =>
      sides.length === 0
        ? []
        : amounts.map((word) => ({ word, text: displayAmount(sum(sides, word), digits), other: "" }));
    return { ours: list(ours), theirs: list(theirs), sameDate: true };
  }
  const single = ours.length === 1 && theirs.length === 1;
  const told = (word: string, read: (sides: readonly MatchSide[]) => string): [ShownPiece, ShownPiece][] => {
    const [mine, yours] = [read(ours), read(theirs)];
    return mine === yours
      ? []
      : [
          [
            { word, text: mine, other: yours },
            { word, text: yours, other: mine },
          ],
        ];
  };
  const first = (read: (side: MatchSide) => string) => (sides: readonly MatchSide[]) =>
    sides[0] === undefined ? "" : read(sides[0]);
  const apart = [
    ...amounts.flatMap((word) => told(word, (sides) => displayAmount(sum(sides, word), digits))),
    ...(single && line.differs.includes("rate")
      ? told(
          "rate",
          first(({ rate }) => `${rate} %`),
        )
      : []),
    ...(line.differs.includes("levy")
      ? told(
          "levy",
          first(({ taxes }) => Object.keys(taxes).join(" + ")),
        )
      : []),
    ...(line.differs.includes("number")
      ? told(
          "number",
          first(({ number }) => number),
        )
      : []),
    ...(line.differs.includes("date")
      ? told(
          "date",
          first(({ date }) => displayDate(date)),
        )
      : []),
    ...(line.differs.includes("party")
      ? told(
          "of",
          first(({ partyNumber, party }) => partyNumber || party),
        )
      : []),
    ...(single ? [] : told("number", firstAndMore)),
  ].slice(0, MOST);
  return {
    ours: apart.map(([mine]) => mine),
    theirs: apart.map(([, yours]) => yours),
    sameDate: !line.differs.includes("date"),
  };
}

function Pieces({ list, align }: { list: readonly ShownPiece[]; align: "left" | "right" }) {
  return (
    <div
      className={clsx(
        "flex flex-col justify-center overflow-hidden px-2 text-[13px]",
        align === "right" && "items-end",
      )}
      role="cell"
    >
      {list.length === 0 && <span className="quiet">–</span>}
      {list.map(({ word, text, other }) => (
        <span key={word} className="flex max-w-full items-baseline gap-1.5 whitespace-nowrap leading-[19px]">
          <span className="quiet text-[11.5px]">{word}</span>
          <span className="num font-semibold">
            <Apart text={text} other={other} />
          </span>
        </span>
      ))}
    </div>
  );
}

/** A text with the signs set apart that the other one has otherwise, where both are as long. */
function Apart({ text, other }: { text: string; other: string }) {
  if (other === "" || other.length !== text.length)
    return <span className={other === "" ? "" : "text-primary"}>{text}</span>;
  return (
    <>
      {Array.from(text, (sign, at) =>
        sign === other[at] ? (
          sign
        ) : (
          <span key={at} className="border-b-2 border-primary text-primary">
            {sign}
          </span>
        ),
      )}
    </>
  );
}
