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
const SIGN_WIDTH = 8.2;
/** At least so wide are columns of numbers, titles and figures. */
const NUMBER_WIDTH = 48;
const TITLE_WIDTH = 110;
const FIGURE_WIDTH = 82;

interface Shown {
  view: ReturnView;
  /** Id of the box that shows what the return comes to. */
  shown: string | undefined;
}

/** The tables of a form, each figure in its place. Cells the authority leaves no field for are shaded. */
export function FormTables({ tables, ...rest }: Shown & { tables: readonly DrawnTable<BoxView>[] }) {
  const { minorDigits } = useScope();
  const widths = widthsByTitle(tables, minorDigits);
  return tables.map((table, index) => (
    <Fragment key={index}>
      {table.heading !== undefined && <h2 className="mt-6 mb-1 text-[15px] font-bold">{table.heading}</h2>}
      <div className="mb-5 shrink-0 overflow-x-auto">
        <OneTable table={table} widths={widths} {...rest} />
      </div>
    </Fragment>
  ));
}

/** Columns of one title are as wide as the longest figure in any of them, so that tables stand under each other. */
function widthsByTitle(tables: readonly DrawnTable<BoxView>[], minorDigits: number): Map<string, number> {
  const widths = new Map<string, number>();
  for (const { columns, rows } of tables)
    for (const [index, title] of columns.entries())
      for (const { cells } of rows) {
        const box = cells[index];
        const signs = box ? shownAmount(box.amount, box.digits, minorDigits, true).length : 0;
        widths.set(title, Math.max(widths.get(title) ?? FIGURE_WIDTH, signs * SIGN_WIDTH + PADDING));
      }
  return widths;
}

function OneTable({
  table: { title, columns, rows },
  widths,
  ...rest
}: Shown & { table: DrawnTable<BoxView>; widths: ReadonlyMap<string, number> }) {
  const signs = Math.max(0, ...rows.map((row) => row.number.length));
  const number = signs === 0 ? PADDING : Math.max(NUMBER_WIDTH, signs * SIGN_WIDTH + PADDING);
  const figures = columns.map((column) => widths.get(column) ?? FIGURE_WIDTH);
  const least = figures.reduce((sum, width) => sum + width, number + TITLE_WIDTH);
  return (
    <table className="sheet-table table-fixed" style={{ minWidth: least }}>
      <colgroup>
        <col style={{ width: number }} />
        <col />
        {figures.map((width, index) => (
          <col key={index} style={{ width }} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <th colSpan={2} className="!text-[13px] !text-base-content">
            {title}
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
