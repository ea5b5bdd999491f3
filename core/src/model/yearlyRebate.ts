import type { CalendarDate } from "../calendar/date.ts";

/**
 * A scheme that gives back the tax of some supplies up to a sum a year.
 * - `levy`, `codes`: the tax, and the codes of supplies and own use whose tax is given back.
 * - `caps`: the most of a year that begins on `from` or later; `doubt`: why it should be looked up.
 * - `yearEnds`: the last month of the year, 1 to 12.
 * - `setting`: the answer that holds what was claimed in the year it began before these books.
 */
export interface YearlyRebate {
  kind: "yearly-rebate";
  levy: string;
  codes: readonly string[];
  caps: readonly { from: CalendarDate; amount: number; source: string; doubt?: string }[];
  yearEnds: number;
  setting: string;
  boxes: { credit: string };
}
