import type { Direction } from "./taxCode.ts";

/**
 * What the law does to the tax of documents that stay unpaid: relief of the seller, repayment by the buyer, and both back
 * when money comes after all.
 * - `from`: the day time runs from: on which payment was due, the later of that and the supply, the supply, or the end of
 *   the period in which it was reported. Where no day was agreed, the day of the document.
 * - `after`: how long; over on the day after, or with `reached` on the last day itself.
 * - `falls`: on the return of the period in which time is over, or on the one after it.
 * - `claimed`: it is for the business to claim, from then on; `until`: no later than so many months from the first day.
 * - `relief`, `back`: the codes of what is put on the return, and of what is taken back.
 */
export interface UnpaidRule {
  id: string;
  name: string;
  direction: Direction;
  from: "due" | "due-or-supply" | "supply" | "period";
  after: { months: number } | { days: number };
  reached?: boolean;
  falls: "containing" | "following";
  claimed?: boolean;
  until?: number;
  option?: readonly [id: string, value: string];
  relief: string;
  back: string;
  says: string;
  source: string;
}
