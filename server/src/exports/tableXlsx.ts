import type { Cell } from "write-excel-file/node";
import type { ReportTable } from "./reportTable.ts";

/** The table as a workbook of one sheet. Amounts are numbers with their decimals; texts are texts, never formulas. */
export async function tableXlsx({ title, about, columns, rows, digits }: ReportTable): Promise<Buffer> {
  const format = digits === 0 ? "#,##0" : `#,##0.${"0".repeat(digits)}`;
  const text = (value: string, bold = false): Cell => ({
    value,
    type: String,
    ...(bold ? { fontWeight: "bold" } : {}),
  });
  const body = rows.map(({ cells, total }) =>
    cells.map((cell, index): Cell => {
      if (typeof cell === "string") return text(cell, total);
      const value = columns[index]?.amount ? cell / 10 ** digits : cell;
      return {
        value,
        type: Number,
        ...(columns[index]?.amount ? { format } : {}),
        ...(total ? { fontWeight: "bold" } : {}),
      };
    }),
  );
  const sheet: Cell[][] = [
    [{ ...(text(title, true) as object), fontSize: 14 } as Cell],
    [text(about)],
    columns.map(({ name }) => text(name, true)),
    ...body,
  ];
  // Loaded with the first workbook: a server starts without it.
  const { default: writeXlsx } = await import("write-excel-file/node");
  return writeXlsx(sheet, {
    sheet: title.replace(/[\\/?*[\]:]/g, " ").slice(0, 31),
    columns: columns.map(({ amount, width }) => ({ width: (width ?? (amount ? 70 : 60)) / 5 })),
    stickyRowsCount: 3,
  }).toBuffer();
}
