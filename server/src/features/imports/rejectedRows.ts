import { textAt } from "@fiscalon/core/at";
import { groupBy } from "@fiscalon/core/groupBy";
import Papa from "papaparse";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import { safeCell } from "../../exports/safeCell.ts";

/** Heading of the column that says what is wrong with a row. */
export const REASON_COLUMN = "What is wrong";

/**
 * The rows that cannot be read under the heading of the file, with a last column that says why; null for none.
 * @param cells of the heading, the row `headerRow + 1`, and of the rows with problems
 */
export function rejectedCsv(
  cells: ReadonlyMap<number, readonly string[]>,
  headerRow: number,
  problems: readonly RowProblem[],
): string | null {
  if (problems.length === 0 || cells.size === 0) return null;
  const header = cells.get(headerRow + 1) ?? [];
  const rows = [...groupBy(problems, ({ row }) => row)]
    .sort(([a], [b]) => a - b)
    .map(([row, why]) => {
      const own = cells.get(row) ?? [];
      const reasons = why.map(({ message }) => message).join(" ");
      return [...header.map((_, at) => safeCell(textAt(own, at))), safeCell(reasons)];
    });
  return `\ufeff${Papa.unparse([[...header, REASON_COLUMN], ...rows])}`;
}
