import ExcelJS from "exceljs";
import type { ReportTable } from "./reportTable.ts";

/** The table as a workbook of one sheet. Amounts are numbers with their decimals; texts are texts, never formulas. */
export async function tableXlsx({ title, about, columns, rows, digits }: ReportTable): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet(title.slice(0, 31), { views: [{ state: "frozen", ySplit: 3 }] });
  sheet.addRow([title]).font = { bold: true, size: 14 };
  sheet.addRow([about]);
  sheet.addRow(columns.map(({ name }) => name)).font = { bold: true };
  for (const { cells, total } of rows) {
    const row = sheet.addRow(
      cells.map((cell, index) =>
        columns[index]?.amount && typeof cell === "number" ? cell / 10 ** digits : cell,
      ),
    );
    if (total) row.font = { bold: true };
  }
  columns.forEach(({ amount, width }, index) => {
    const column = sheet.getColumn(index + 1);
    column.width = (width ?? (amount ? 70 : 60)) / 5;
    if (amount) column.numFmt = digits === 0 ? "#,##0" : `#,##0.${"0".repeat(digits)}`;
  });
  return Buffer.from(await book.xlsx.writeBuffer());
}
