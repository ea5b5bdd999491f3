import { textAt } from "@fiscalon/core/at";
import { usePacks } from "../../api/packs.ts";
import clsx from "clsx";
import { Fragment } from "react";
import type { BoxView, ReturnView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { formulaWords } from "@fiscalon/core/returns/formulaWords";
import { Tip } from "../../kit/Tip.tsx";
import { direction, trailOf } from "./boxes.ts";

interface BoxListProps {
  boxes: readonly BoxView[];
  view: ReturnView;
  /** Id of the box that shows what the return comes to. */
  shown: string | undefined;
}

/** The boxes in the official order: amount, the period before, and how it changed. */
export function BoxList({ boxes, view, shown }: BoxListProps) {
  const { client, minorDigits } = useScope();
  const largest = { tax: largestChange(view, "tax"), value: largestChange(view, "value") };
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th className="w-[44px]">Box</th>
          <th />
          <th className="num w-[130px]">{client?.currency}</th>
          <th className="num w-[110px]">previous</th>
          <th className="w-[96px] !text-center">change</th>
        </tr>
      </thead>
      <tbody>
        {groupsOf(view, boxes).map(({ heading, rows }) => (
          <Fragment key={heading}>
            {heading !== "" && (
              <tr>
                <td colSpan={5} className="quiet !pt-4 text-[12px]">
                  {heading}
                </td>
              </tr>
            )}
            {rows.map((box) => (
              <BoxRow
                key={box.id}
                box={box}
                view={view}
                digits={minorDigits}
                strong={box.id === shown}
                largest={largest[box.holds]}
              />
            ))}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

function largestChange({ boxes }: ReturnView, holds: BoxView["holds"]): number {
  const changes = boxes.filter((box) => box.holds === holds).map((box) => box.amount - (box.previous ?? 0));
  return Math.max(1, ...changes.map(Math.abs));
}

/** The parts of the form as it has them; without parts, the values in whole units stand under a line of their own. */
function groupsOf(view: ReturnView, boxes: readonly BoxView[]): { heading: string; rows: BoxView[] }[] {
  if (view.parts.length > 0) {
    const names = Object.fromEntries(view.parts.map(({ id, name }) => [id, name]));
    return [...new Set(boxes.map(({ part }) => part))].map((part) => ({
      heading: textAt(names, part ?? undefined),
      rows: boxes.filter((box) => box.part === part),
    }));
  }
  const first = boxes.findIndex((box) => box.holds === "value");
  const onlyValuesFollow = first > 0 && boxes.slice(first).every((box) => box.holds === "value");
  if (!onlyValuesFollow) return [{ heading: "", rows: [...boxes] }];
  const whole = boxes[first]?.digits === 0 ? ", in whole units" : "";
  return [
    { heading: "", rows: boxes.slice(0, first) },
    { heading: `Values without tax${whole}`, rows: boxes.slice(first) },
  ];
}

function BoxRow({
  box,
  view,
  digits,
  strong,
  largest,
}: {
  box: BoxView;
  view: ReturnView;
  digits: number;
  strong: boolean;
  largest: number;
}) {
  const packs = usePacks();
  return (
    <tr
      className={clsx(
        (box.kind === "formula" || box.kind === "taxed") && !strong && "bg-base-200",
        strong && "total",
      )}
    >
      <td className={clsx("whitespace-nowrap", box.helper ? "quiet italic" : "font-bold text-secondary")}>
        {box.helper ? (
          <Tip words="A step of the computation; the official form does not have it.">{box.id}</Tip>
        ) : (
          box.id
        )}
      </td>
      <td className={clsx(strong && "font-bold")}>
        {box.title === box.short ? box.short : <Tip words={box.title}>{box.short}</Tip>}
        {strong && direction(box.short, view.net)}{" "}
        {box.formula && <span className="quiet font-normal">{formulaWords(box.formula, packs)}</span>}
      </td>
      <td className="num">
        <Figure
          amount={box.amount}
          digits={box.digits}
          minorDigits={digits}
          dash
          of={trailOf(box, view)}
          className={clsx(strong ? "text-[18px] font-bold" : "text-[15px] font-semibold")}
          label={`Box ${box.id}`}
        />
      </td>
      <td className="num quiet">
        {box.previous !== null && (
          <Figure
            amount={box.previous}
            digits={box.digits}
            minorDigits={digits}
            dash
            of={box.previous === 0 ? null : `box/${view.registration}/${view.previousPeriod}/${box.id}`}
            label={`Previous box ${box.id}`}
          />
        )}
      </td>
      <td>
        <ChangeBar change={box.previous === null ? 0 : box.amount - box.previous} largest={largest} />
      </td>
    </tr>
  );
}

/** The change against the period before, right of the middle when more, left when less. */
function ChangeBar({ change, largest }: { change: number; largest: number }) {
  const width = Math.round((Math.abs(change) / largest) * 38);
  return (
    <svg
      width="84"
      height="14"
      viewBox="0 0 84 14"
      className="mx-auto block"
      role="img"
      aria-label={change === 0 ? "no change" : change > 0 ? "more than before" : "less than before"}
    >
      <line x1="42" y1="1" x2="42" y2="13" stroke="currentColor" strokeWidth="1" opacity="0.5" />
      {width > 0 && (
        <rect
          x={change > 0 ? 42 : 42 - width}
          y="4"
          width={width}
          height="6"
          fill="currentColor"
          opacity="0.75"
        />
      )}
    </svg>
  );
}
