import type { DueRule } from "../calendar/dueDate.ts";
import type { CalendarDate } from "../calendar/date.ts";

/** Schedules of a rate by whether the customer's identification is known. */
export interface CollectionRates {
  identified: string;
  unidentified: string;
}

/** Goods whose sale bears collection by itself, whatever the customer paid in the year. */
export interface CollectionKind extends CollectionRates {
  id: string;
  name: string;
}

/**
 * A tax of its own that a seller of goods collects from customers: on what one of them paid in a fiscal year above a sum,
 * and on the sale of certain kinds of goods. It is no part of the value that bears VAT or GST.
 * - `option`: the choice of the registration by which it is done: `no`, on the `receipt`, or on the `invoice` as soon as
 *   it passes the sum.
 * - `code`: of the lines that charge it, booked to the account with the role `collected-at-source`.
 * - `above`: minor units; `yearEnds`: the last month of the year; `from`, `to`: the days of the receipts it is due on.
 *   Receipts of the same year before `from` count towards the sum.
 * - `identification`: the pattern by which a customer's number holds it, and its name.
 * - `deducts`: under which name a contact's standing says that it deducts tax itself, so that nothing is collected.
 * - `deposit`: when what a month collected is paid over; `statement`: when that of a quarter is given, and its name.
 */
export interface CollectionRule extends CollectionRates {
  id: string;
  name: string;
  option: string;
  code: string;
  above: number;
  yearEnds: number;
  from: CalendarDate;
  to: CalendarDate | null;
  identification: { name: string; pattern: string };
  deducts: { standing: string; name: string };
  kinds: readonly CollectionKind[];
  deposit: readonly DueRule[];
  statement: { name: string; due: readonly DueRule[] };
  says: string;
  source: string;
}
