import Papa from "papaparse";
import { formatAmount } from "@fiscalon/core/money/amount";
import { safeCell } from "./safeCell.ts";
import type { ReportTable } from "./reportTable.ts";

/** The table as CSV: amounts as plain decimals, texts that no spreadsheet takes for formulas. */
export function tableCsv({ columns, rows, digits }: ReportTable): string {
  const cells = rows.map(({ cells: row }) =>
    row.map((cell, index) =>
      columns[index]?.amount && typeof cell === "number"
        ? formatAmount(cell, digits)
        : safeCell(String(cell)),
    ),
  );
  return Papa.unparse([columns.map(({ name }) => name), ...cells]);
}
