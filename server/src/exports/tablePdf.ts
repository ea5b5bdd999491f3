import { at } from "@fiscalon/core/at";
import PDFDocument from "pdfkit";
import { displayAmount } from "@fiscalon/core/money/amount";
import { registerFonts } from "./pdfFonts.ts";
import type { ReportTable } from "./reportTable.ts";

const MARGIN = 40;
const WIDTH = 842 - 2 * MARGIN;
const FOOT = 595 - MARGIN;
const ROW = 15;

/** The table as a PDF in landscape; the heads of the columns stand on every page. */
export function tablePdf(table: ReportTable): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: "A4",
    layout: "landscape",
    margin: MARGIN,
    info: { Title: table.title },
  });
  registerFonts(pdf);
  pdf.font("bold").fontSize(16).text(table.title, MARGIN, MARGIN);
  pdf.font("text").fontSize(10).text(table.about);
  const widths = columnWidths(table);
  let y = pdf.y + 12;
  const line = (cells: readonly string[], font: string) => {
    let x = MARGIN;
    cells.forEach((cell, index) => {
      const width = at(widths, index);
      pdf
        .font(table.columns[index]?.amount && font === "text" ? "mono" : font)
        .fontSize(8.5)
        .text(cell, x, y, {
          width: width - 6,
          height: ROW,
          lineBreak: false,
          ellipsis: true,
          align: table.columns[index]?.amount ? "right" : "left",
        });
      x += width;
    });
    y += ROW;
  };
  const head = () => {
    line(
      table.columns.map(({ name }) => name),
      "bold",
    );
    pdf
      .moveTo(MARGIN, y - 3)
      .lineTo(MARGIN + WIDTH, y - 3)
      .lineWidth(0.7)
      .stroke();
  };
  head();
  for (const { cells, total } of table.rows) {
    if (y + ROW > FOOT) {
      pdf.addPage();
      y = MARGIN;
      head();
    }
    line(
      cells.map((cell) => (typeof cell === "number" ? displayAmount(cell, table.digits) : cell)),
      total ? "bold" : "text",
    );
  }
  const chunks: Buffer[] = [];
  pdf.on("data", (chunk: Buffer) => chunks.push(chunk));
  return new Promise((resolve, reject) => {
    pdf.on("end", () => resolve(Buffer.concat(chunks)));
    pdf.on("error", reject);
    pdf.end();
  });
}

function columnWidths({ columns }: ReportTable): number[] {
  const wanted = columns.map(({ amount, width }) => width ?? (amount ? 70 : 60));
  const sum = wanted.reduce((total, width) => total + width, 0);
  return wanted.map((width) => (width / sum) * WIDTH);
}
