import type { Content, TableCell } from "pdfmake/interfaces.js";
import { displayAmount } from "@fiscalon/core/money/amount";
import { titleOfRow } from "@fiscalon/core/returns/drawnTables";
import type { DrawnRow, DrawnTable } from "@fiscalon/core/returns/drawnTables";
import type { Region } from "@fiscalon/core/model/pack";
import type { BoxView } from "@fiscalon/contract/returns";
import { RULED } from "../../exports/pdf.ts";

const NO_FIELD = "#efece5";
const NUMBER_WIDTH = 38;
/** Where no row has a number. */
const NO_NUMBER = 2;
/** Of a figure and its signs, by how many columns there are. */
const WIDTHS: readonly [most: number, width: number, fontSize: number][] = [
  [6, 84, 10],
  [Infinity, 47, 8],
];

/** A table of a form on paper; where the authority leaves no field, the cell is shaded. */
export function formTable(
  { heading, title, columns, rows }: DrawnTable<BoxView>,
  digits: number,
  regions: readonly Region[],
): Content {
  const [, width, fontSize] = WIDTHS.find(([most]) => columns.length <= most) ?? [0, 0, 0];
  const across = Array.from({ length: columns.length + 1 }, () => "");
  const heads: TableCell[][] = [
    ...(heading === undefined
      ? []
      : [[{ text: heading, fontSize: 13, bold: true, colSpan: columns.length + 2 }, ...across]]),
    [
      { text: title, bold: true, colSpan: 2 },
      "",
      ...columns.map((text) => ({ text, alignment: "right" as const, fontSize: 8.5 })),
    ],
  ];
  const numbered = rows.some(({ number }) => number !== "");
  return {
    margin: [0, 6, 0, 10],
    layout: RULED,
    table: {
      headerRows: heads.length,
      dontBreakRows: true,
      keepWithHeaderRows: 1,
      widths: [numbered ? NUMBER_WIDTH : NO_NUMBER, "*", ...columns.map(() => width)],
      body: [...heads, ...rows.map((row) => rowCells(row, columns.length, { digits, regions, fontSize }))],
    },
  };
}

function rowCells(
  row: DrawnRow<BoxView>,
  width: number,
  { digits, regions, fontSize }: { digits: number; regions: readonly Region[]; fontSize: number },
): TableCell[] {
  const title = { text: titleOfRow(row, regions), bold: row.level !== undefined || row.cells.length === 0 };
  const number = { text: row.number, bold: true, style: "quiet" };
  if (row.cells.length === 0)
    return [number, { ...title, colSpan: width + 1 }, ...Array.from({ length: width }, () => "")];
  return [
    number,
    title,
    ...row.cells.map((box): TableCell =>
      box === null
        ? { text: "", fillColor: NO_FIELD }
        : { text: box ? shownFigure(box, digits) : "–", style: "figure", fontSize },
    ),
  ];
}

/** What a box holds, with its own decimals. @param minor decimals amounts are kept with */
export function shownFigure({ amount, digits }: Pick<BoxView, "amount" | "digits">, minor: number): string {
  return digits === 0 ? displayAmount(Math.trunc(amount / 10 ** minor), 0) : displayAmount(amount, digits);
}
