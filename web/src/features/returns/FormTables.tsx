import clsx from "clsx";
import { Fragment } from "react";
import type { BoxView, ReturnView } from "@fiscalon/contract/returns";
import { titleOfRow } from "@fiscalon/core/returns/drawnTables";
import type { DrawnRow, DrawnTable } from "@fiscalon/core/returns/drawnTables";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { Figure, shownAmount } from "../../kit/Figure.tsx";
import { direction, trailOf } from "./boxes.ts";

/** What is around a sign or a figure. */
const PADDING = 20;
const NUMBER_WIDTH = 60;
/** Tables of so many columns stand for themselves and are as narrow as they can be. */
const WIDE = 7;
/** At least so wide are columns, and titles. */
const LEAST = { figure: 104, title: 200 };
const LEAST_OF_WIDE = { figure: 78, title: 110 };
const SIGN_WIDTH = 8.2;

interface Shown {
  view: ReturnView;
  /** Id of the box that shows what the return comes to. */
  shown: string | undefined;
}

/** The tables of a form, each figure in its place. Cells the authority leaves no field for are shaded. */
export function FormTables({ tables, ...rest }: Shown & { tables: readonly DrawnTable<BoxView>[] }) {
  const { minorDigits } = useScope();
  const common = figureWidth(
    tables.filter(({ columns }) => columns.length < WIDE),
    minorDigits,
  );
  return tables.map((table, index) => (
    <Fragment key={index}>
      {table.heading !== undefined && <h2 className="mt-6 mb-1 text-[15px] font-bold">{table.heading}</h2>}
      <div className="mb-5 shrink-0 overflow-x-auto">
        <OneTable
          table={table}
          {...(table.columns.length < WIDE
            ? { ...LEAST, figure: Math.max(LEAST.figure, common) }
            : {
                ...LEAST_OF_WIDE,
                figure: Math.max(LEAST_OF_WIDE.figure, figureWidth([table], minorDigits)),
              })}
          {...rest}
        />
      </div>
    </Fragment>
  ));
}

/** So wide is the longest figure of some tables. */
function figureWidth(tables: readonly DrawnTable<BoxView>[], minorDigits: number): number {
  const boxes = tables.flatMap(({ rows }) => rows.flatMap(({ cells }) => cells.flatMap((box) => box ?? [])));
  const signs = boxes.map((box) => shownAmount(box.amount, box.digits, minorDigits, true).length);
  return Math.ceil(Math.max(0, ...signs) * SIGN_WIDTH + PADDING);
}

function OneTable({
  table: { title: name, columns, rows },
  figure,
  title,
  ...rest
}: Shown & { table: DrawnTable<BoxView>; figure: number; title: number }) {
  const signs = Math.max(0, ...rows.map((row) => row.number.length));
  const number = signs === 0 ? PADDING : Math.max(NUMBER_WIDTH, signs * SIGN_WIDTH + PADDING);
  return (
    <table className="sheet-table table-fixed" style={{ minWidth: number + title + columns.length * figure }}>
      <colgroup>
        <col style={{ width: number }} />
        <col />
        {columns.map((_, index) => (
          <col key={index} style={{ width: figure }} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <th colSpan={2} className="!text-[13px] !text-base-content">
            {name}
          </th>
          {columns.map((column, index) => (
            <th key={index} className="num !whitespace-normal">
              {column}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, index) => (
          <Row key={index} row={row} width={columns.length} {...rest} />
        ))}
      </tbody>
    </table>
  );
}

function Row({ row, width, view, shown }: Shown & { row: DrawnRow<BoxView>; width: number }) {
  const packs = usePacks();
  const { client, minorDigits } = useScope();
  const registration = client?.registrations.find((one) => one.id === view.registration);
  const regions = (registration && packs.byId(registration.pack).regions) ?? [];
  const isHeading = row.cells.length === 0;
  const isResult = row.cells.some((box) => box?.id === shown);
  const title = titleOfRow(row, regions);
  return (
    <tr
      className={clsx(
        row.level === "result" && "total",
        (row.level === "sum" || isHeading) && "font-semibold",
      )}
    >
      <td className="font-bold whitespace-nowrap text-secondary">{row.number}</td>
      <td colSpan={isHeading ? width + 1 : 1}>
        {title}
        {isResult && direction(title, view.net)}
      </td>
      {row.cells.map((box, index) => (
        <td key={index} className={box === null ? "bg-base-200" : "num"}>
          {box === undefined && "–"}
          {box && (
            <Figure
              amount={box.amount}
              digits={box.digits}
              minorDigits={minorDigits}
              dash
              of={trailOf(box, view)}
              className={clsx("text-[13.5px]", box.id === shown && "font-bold")}
              label={`Box ${box.id}`}
            />
          )}
        </td>
      ))}
    </tr>
  );
}
