import type { RegisterField } from "../formats/registers/columns.ts";
import { readRow } from "../formats/registers/readRow.ts";
import type { RowProblem, RowReading } from "../formats/registers/readRow.ts";
import { displayAmount } from "../money/amount.ts";
import type { RegisterFound, RegisterReading } from "./registerReading.ts";
import { note } from "./registerReading.ts";
import { textAt } from "../at.ts";

/** Whether a row is the totals at the bottom. */
export function isTotalsRow(cells: readonly string[], reading: RegisterReading): boolean {
  const at = (field: RegisterField) => textAt(cells, reading.mapping[field]).trim();
  const named = cells.some((cell) =>
    /^(grand\s+|sub-?)?totals?\b|^sum\b|^carried forward/i.test(cell.trim()),
  );
  return named && at("date") === "";
}

/** Whether the totals are those of the rows above. */
export function totalsNotice(
  cells: readonly string[],
  row: number,
  content: RegisterFound,
  reading: RegisterReading,
): RowProblem {
  const { gross: _unread, ...mapping } = reading.mapping;
  const only: RowReading = { ...reading, mapping };
  const read = readRow(
    cells.map((cell, index) =>
      index === reading.mapping.date ? "2000-01-01" : index === reading.mapping.number ? "total" : cell,
    ),
    row,
    only,
  );
  if (!read.ok) return note(row, null, "", "A row of totals; left out.");
  const show = (amount: number) => displayAmount(amount, reading.digits);
  const { amount: net, tax } = read.row;
  const agrees = net === content.net && (tax === null || tax === content.tax);
  const sums = `the rows above add up to ${show(content.net)} net and ${show(content.tax)} tax`;
  const message = agrees
    ? `A row of totals; left out. It agrees: ${sums}.`
    : `A row of totals; left out. It says ${show(net)} net and ${tax === null ? "no" : show(tax)} tax, but ${sums}${content.problems.length > 0 ? " without the rows that cannot be read" : ""}.`;
  return note(row, null, "", message);
}
