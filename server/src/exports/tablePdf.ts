import { at } from "@fiscalon/core/at";
import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { displayAmount } from "@fiscalon/core/money/amount";
import { pdfOf, RULED } from "./pdf.ts";
import type { ReportTable } from "./reportTable.ts";

const MARGIN = 40;
const WIDTH = 842 - 2 * MARGIN;
/** Between two columns, as the layout keeps it. */
const GAP = 6;

/** The table as a PDF in landscape; the heads of the columns stand on every page. */
export function tablePdf(table: ReportTable): Promise<Buffer> {
  const { title, about, columns, rows, digits } = table;
  const isAmount = (index: number) => columns[index]?.amount === true;
  return pdfOf({
    info: { title },
    pageOrientation: "landscape",
    pageMargins: MARGIN,
    content: [
      { text: title, fontSize: 16, bold: true },
      { text: about, margin: [0, 2, 0, 10] },
      {
        layout: RULED,
        fontSize: 8.5,
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: columnWidths(table),
          body: [
            columns.map(({ name }, index) => ({
              text: name,
              bold: true,
              alignment: isAmount(index) ? "right" : "left",
            })),
            ...rows.map(({ cells, total }) =>
              cells.map((cell, index) => ({
                text:
                  typeof cell === "number"
                    ? displayAmount(cell, digits)
                    : columns[index]?.date
                      ? displayDate(cell)
                      : cell,
                ...(total ? { bold: true } : {}),
                ...(isAmount(index) ? { style: total ? "" : "figure", alignment: "right" as const } : {}),
              })),
            ),
          ],
        },
      },
    ],
  });
}

/** The width of the paper shared among the columns in the proportions they ask for. */
function columnWidths({ columns }: ReportTable): number[] {
  const wanted = columns.map(({ amount, width }) => width ?? (amount ? 70 : 60));
  const sum = wanted.reduce((total, width) => total + width, 0);
  const room = WIDTH - GAP * (columns.length - 1);
  return columns.map((_, index) => (at(wanted, index) / sum) * room);
}
