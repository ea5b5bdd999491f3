import type { CalendarDate } from "../../calendar/date.ts";

/**
 * A line of a bank statement. `amount` in minor units of the account's currency: money in positive, money out
 * negative. `id` is the bank's own reference, or what makes the line different from all others.
 */
export interface StatementLine {
  id: string;
  date: CalendarDate;
  amount: number;
  /** Who stands on the other side, and what was written. */
  party: string;
  text: string;
  /** A reference given by whoever paid. */
  reference: string;
}

/** One statement of one account. Balances in minor units where the file tells them. */
export interface BankStatement {
  account: string;
  currency: string;
  opening: number | null;
  closing: number | null;
  lines: StatementLine[];
}

/** What a statement's balances say about its lines: null when they add up or are not told. */
export function imbalanceOf({ opening, closing, lines }: BankStatement): number | null {
  if (opening === null || closing === null) return null;
  const off = closing - lines.reduce((sum, { amount }) => sum + amount, opening);
  return off === 0 ? null : off;
}
