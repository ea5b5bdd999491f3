import { displayAmount } from "@fiscalon/core/money/amount";
import clsx from "clsx";
import type { ReactNode } from "react";

/** Where bars stand: from the lowest figure to the highest, a little room at both ends. */
export interface Scale {
  low: number;
  high: number;
}

const ROOM = 0.04;

/** The stretch in which all the sums of a bridge lie. Far from nought it does not begin there. */
export function scaleOf(sums: readonly number[]): Scale {
  const [low, high] = [Math.min(...sums), Math.max(...sums)];
  const room = Math.max(1, (high - low) * ROOM);
  return { low: low - room * 2, high: high + room };
}

function place({ low, high }: Scale, amount: number): number {
  return ((amount - low) / (high - low)) * 100;
}

/** A step of a waterfall: what adds is solid, what takes off hatched; sums reach to the edge. */
export function Bar({
  scale,
  from,
  to,
  sum = false,
}: {
  scale: Scale;
  from: number;
  to: number;
  sum?: boolean;
}) {
  const [start, end] = sum
    ? [0, place(scale, to)]
    : [place(scale, Math.min(from, to)), place(scale, Math.max(from, to))];
  return (
    <div className="relative h-4" aria-hidden>
      <div
        className={clsx(
          "absolute h-4 border border-base-content/60",
          sum ? "bg-base-content/75" : to >= from ? "bg-secondary/40" : "hatched",
        )}
        style={{ left: `${start}%`, width: `max(2px, ${end - start}%)` }}
      />
    </div>
  );
}

/** The columns of a bridge, the same in every one on a sheet; amounts have their room whatever lies beside the sheet. */
export function BridgeColumns() {
  return (
    <colgroup>
      <col />
      <col className="w-[165px]" />
      <col className="w-[28%]" />
      <col className="w-[14%]" />
    </colgroup>
  );
}

/** The name of a cause that opens its rows. */
export function CauseName({ name, shown, onToggle }: { name: string; shown: boolean; onToggle: () => void }) {
  return (
    <button
      type="button"
      className="word-link text-left !whitespace-normal"
      aria-expanded={shown}
      onClick={onToggle}
    >
      {shown ? "▾" : "▸"} {name}
    </button>
  );
}

/** An amount that opens the rows it is made of, in place. */
export function RowsFigure({
  amount,
  digits,
  name,
  onToggle,
}: {
  amount: number;
  digits: number;
  name: string;
  onToggle: () => void;
}) {
  const shown = displayAmount(amount, digits);
  return (
    <button type="button" className="figure" aria-label={`${name} ${shown}, open rows`} onClick={onToggle}>
      {shown}
    </button>
  );
}

/** What is not shown yet of the rows of a cause. */
export function MoreRows({ left, onMore }: { left: number; onMore: () => void }) {
  if (left <= 0) return null;
  return (
    <tr>
      <td colSpan={4} className="pl-8">
        <button type="button" className="word-link" onClick={onMore}>
          {left} more
        </button>
      </td>
    </tr>
  );
}

/** A row of the bridge: what it is, its amount, its step, and who found it. */
export function BridgeLine({
  name,
  detail,
  amount,
  bar,
  found,
  strong = false,
}: {
  name: ReactNode;
  detail?: ReactNode;
  amount: ReactNode;
  bar: ReactNode;
  found?: ReactNode;
  strong?: boolean;
}) {
  return (
    <tr className={clsx(strong && "bg-base-200 font-semibold")}>
      <td className="!whitespace-normal">
        {name}
        {detail && <span className="quiet ml-1.5 text-[12.5px] font-normal">{detail}</span>}
      </td>
      <td className="num">{amount}</td>
      <td>{bar}</td>
      <td className="quiet font-normal">{found}</td>
    </tr>
  );
}
