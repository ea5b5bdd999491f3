import { DATE_WIDTH } from "../../kit/tableLayout.ts";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import type { PiecePage, PieceRow } from "@fiscalon/contract/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SumRow } from "../../kit/DataTable.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { NumberLink } from "../../kit/NumberLink.tsx";
import { Tip } from "../../kit/Tip.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import { pieceNo, stateSign, stateWord } from "./pieceWords.ts";

/** The columns of the stock book. */
export function pieceColumns(digits: number, to: (no: number) => string): Column<PieceRow>[] {
  const amount = (no: number, value: number | null, what: string) =>
    value === null ? (
      ""
    ) : (
      <Figure amount={value} digits={digits} of={`piece/${no}`} label={`${what} of piece ${pieceNo(no)}`} />
    );
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
      width: 170,
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
      width: DATE_WIDTH,
      sorts: true,
      cell: ({ boughtOn }) => boughtOn && displayDate(boughtOn),
    },
    {
      id: "price",
      head: "Cost",
      width: 104,
      amount: true,
      sorts: true,
      cell: ({ no, price }) => amount(no, price, "Cost"),
    },
    {
      id: "soldOn",
      head: "Sold",
      width: DATE_WIDTH,
      sorts: true,
      cell: (row) =>
        row.soldOn === null ? <span className="quiet">{stateWord(row)}</span> : displayDate(row.soldOn),
    },
    {
      id: "sold",
      head: "Price",
      width: 104,
      amount: true,
      sorts: true,
      cell: ({ no, sold }) => amount(no, sold, "Price"),
    },
    {
      id: "margin",
      head: "Margin",
      width: 150,
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
    <span className="flex items-center justify-between gap-2">
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
      <Figure
        amount={row.margin}
        digits={digits}
        of={`piece/${row.no}`}
        label={`Margin of piece ${pieceNo(row.no)}`}
        {...(row.margin < 0 ? { className: "text-error" } : {})}
      />
    </span>
  );
}

/** What was sold on the scheme of what is listed. */
export function pieceSums({ sums, total }: PiecePage, digits: number): SumRow {
  const names = { bought: "Cost", price: "Price", margin: "Margin", tax: "Tax" } as const;
  const sum = (of: keyof typeof names) => (
    <Figure
      amount={sums[of]}
      digits={digits}
      label={`${names[of]} of what was sold`}
      of={{
        ref: `pieces/${of}/${sums[of]}`,
        title: `${names[of]} of the pieces sold on the scheme`,
        amount: sums[of],
        digits,
        words: [
          `The ${names[of].toLowerCase()} of each of the ${sums.sold} pieces that are listed and were sold on the scheme. Open any row for its own trail.`,
          ...(of === "tax" ? ["It is worked out piece by piece: a loss takes nothing off."] : []),
        ],
        parts: [],
        arithmetic:
          of === "margin"
            ? [`${displayAmount(sums.price, digits)} − ${displayAmount(sums.bought, digits)}`]
            : [],
      }}
    />
  );
  return {
    caption: `${plural(total, "piece")}, ${sums.sold} of them sold on the scheme`,
    figures: { price: sum("bought"), sold: sum("price"), margin: sum("margin"), tax: sum("tax") },
  };
}
