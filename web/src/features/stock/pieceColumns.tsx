import clsx from "clsx";
import type { PiecePage, PieceRow } from "@fiscalon/contract/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SumRow } from "../../kit/DataTable.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural, showDate } from "../../kit/format.ts";
import { NumberLink } from "../../kit/NumberLink.tsx";
import { Tip } from "../../kit/Tip.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import { pieceNo, stateSign, stateWord } from "./pieceWords.ts";

/** The columns of the stock book. */
export function pieceColumns(digits: number, to: (no: number) => string): Column<PieceRow>[] {
  const amount = (value: number | null) => (value === null ? "" : displayAmount(value, digits));
  return [
    {
      id: "no",
      head: "No.",
      width: 84,
      sorts: true,
      always: true,
      cell: (row) => {
        const { sign, tone } = stateSign(row);
        return (
          <span className="flex items-baseline gap-2">
            <span aria-hidden className={clsx("w-[12px] text-center", tone)}>
              {sign}
            </span>
            <NumberLink to={to(row.no)}>{pieceNo(row.no)}</NumberLink>
          </span>
        );
      },
    },
    {
      id: "name",
      head: "Piece",
      width: 190,
      grow: 2,
      sorts: true,
      cell: ({ name, identifier }) => (
        <>
          {name} <span className="quiet font-mono text-[12px]">{identifier}</span>
        </>
      ),
    },
    {
      id: "boughtOn",
      head: "Bought",
      width: 100,
      sorts: true,
      cell: ({ boughtOn }) => boughtOn && showDate(boughtOn),
    },
    { id: "price", head: "Cost", width: 92, amount: true, sorts: true, cell: ({ price }) => amount(price) },
    {
      id: "soldOn",
      head: "Sold",
      width: 120,
      grow: 0.4,
      sorts: true,
      cell: (row) =>
        row.soldOn === null ? <span className="quiet">{stateWord(row)}</span> : showDate(row.soldOn),
    },
    { id: "sold", head: "Price", width: 92, amount: true, sorts: true, cell: ({ sold }) => amount(sold) },
    {
      id: "margin",
      head: "Margin",
      width: 170,
      amount: true,
      cell: (row) => <Margin row={row} digits={digits} />,
    },
    {
      id: "tax",
      head: "Tax",
      width: 92,
      amount: true,
      sorts: true,
      cell: ({ no, tax, margin }) =>
        tax === null ? (
          ""
        ) : tax === 0 && margin !== null ? (
          <span className="quiet">nil</span>
        ) : (
          <Figure amount={tax} digits={digits} of={`piece/${no}`} label={`Tax of piece ${pieceNo(no)}`} />
        ),
    },
  ];
}

/** Why there is none, or the margin with a bar: how much of the price it is, and of that the tax. */
function Margin({ row, digits }: { row: PieceRow; digits: number }) {
  if (row.missing.length > 0)
    return (
      <Tip words={`Not on record: ${row.missing.join(", ")}`}>
        <span className="text-error">{row.missing[0]} missing</span>
      </Tip>
    );
  if (row.offReason !== null)
    return (
      <Tip words={row.offReason}>
        <span className="text-warning">{row.offReason}</span>
      </Tip>
    );
  if (row.margin === null || row.sold === null) return null;
  const share = row.sold === 0 ? 0 : Math.min(1, Math.abs(row.margin) / row.sold);
  return (
    <span className="flex items-center justify-end gap-2">
      <span aria-hidden className="relative h-[9px] w-[54px]">
        <span
          className={clsx(
            "absolute left-0 h-full border",
            row.margin < 0 ? "border-dashed border-error" : "border-base-content/60 bg-base-300",
          )}
          style={{ width: `${Math.max(4, share * 100)}%` }}
        />
        {row.margin > 0 && (
          <span
            className="absolute left-0 h-full bg-primary"
            style={{ width: `${share * 100 * ((row.tax ?? 0) / row.margin)}%` }}
          />
        )}
      </span>
      <span className={clsx("num", row.margin < 0 && "text-error")}>{displayAmount(row.margin, digits)}</span>
    </span>
  );
}

/** What was sold on the scheme of what is listed. */
export function pieceSums({ sums, total }: PiecePage, digits: number): SumRow {
  return {
    caption: `${plural(total, "piece")}, ${sums.sold} of them sold on the scheme`,
    figures: {
      price: displayAmount(sums.bought, digits),
      sold: displayAmount(sums.price, digits),
      margin: displayAmount(sums.margin, digits),
      tax: displayAmount(sums.tax, digits),
    },
  };
}
