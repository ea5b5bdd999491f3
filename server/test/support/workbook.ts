import writeXlsx from "write-excel-file/node";
import type { Cell } from "write-excel-file/node";

/** A workbook of one sheet, as a spreadsheet would save it. */
export function workbookOf(rows: readonly (readonly (string | number | Date | null)[])[]): Promise<Buffer> {
  const cells = rows.map((row) =>
    row.map((value): Cell => (value instanceof Date ? { value, type: Date, format: "dd/mm/yyyy" } : value)),
  );
  return writeXlsx(cells, { sheet: "Sheet" }).toBuffer();
}
