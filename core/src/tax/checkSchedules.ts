import { displayDate } from "../calendar/displayDate.ts";
import { isCalendarDate } from "../calendar/date.ts";
import { FiscalError, withinField } from "../errors.ts";
import { exactFromDecimal } from "../money/exact.ts";
import type { RateRow, RateSchedules } from "../model/taxCode.ts";

/**
 * Refuses schedules that do not say one rate for a day: rows that overlap, end before they start, or hold no number.
 * @throws FiscalError `tax/overlapping-rates`, `tax/bad-rate-row`, `money/not-a-number`, with the path of the row
 */
export function checkSchedules(schedules: RateSchedules): void {
  for (const [id, rows] of Object.entries(schedules))
    withinField(`schedules.${id}`, () => checkRows(id, rows));
}

function checkRows(id: string, rows: readonly RateRow[]): void {
  rows.forEach((row, index) =>
    withinField(`[${index}]`, () => {
      exactFromDecimal(row.rate);
      const dates = isCalendarDate(row.from) && (row.to === null || isCalendarDate(row.to));
      if (dates && (row.to === null || row.from <= row.to)) return;
      throw new FiscalError(
        "tax/bad-rate-row",
        `A row of ${id} does not run from one day to a later one.`,
        "from",
      );
    }),
  );
  const inOrder = [...rows].sort((a, b) => (a.from < b.from ? -1 : 1));
  for (const [index, row] of inOrder.entries()) {
    const next = inOrder[index + 1];
    if (!next || (row.to !== null && row.to < next.from)) continue;
    throw new FiscalError(
      "tax/overlapping-rates",
      `${id} has two rates on ${displayDate(next.from)}: ${row.rate} and ${next.rate}. End the earlier row on the day before.`,
      `[${rows.indexOf(next)}].from`,
    );
  }
}
