import { textAt } from "@fiscalon/core/at";
import Papa from "papaparse";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import { safeCell } from "../../exports/safeCell.ts";

/** Heading of the column that says what is wrong with a row. */
export const REASON_COLUMN = "What is wrong";

/** The rows that cannot be read under the heading of the file, with a last column that says why; null for none. */
export function rejectedCsv(
  data: readonly (readonly string[])[],
  headerRow: number,
  problems: readonly RowProblem[],
): string | null {
  if (problems.length === 0 || data.length === 0) return null;
  const reasons = new Map<number, string[]>();
  for (const { row, message } of problems) reasons.set(row, [...(reasons.get(row) ?? []), message]);
  const header = data[headerRow] ?? [];
  const rows = [...reasons]
    .sort(([a], [b]) => a - b)
    .map(([row, why]) => {
      const cells = data[row - 1] ?? [];
      return [...header.map((_, at) => safeCell(textAt(cells, at))), safeCell(why.join(" "))];
    });
  return `\ufeff${Papa.unparse([[...header, REASON_COLUMN], ...rows])}`;
}
