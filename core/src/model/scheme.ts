import type { Attribution } from "./attribution.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { Treatment } from "./taxCode.ts";

/**
 * What is asked of who joins a scheme, the usual answer first. `holds`: an amount is asked for, as decimal text; there are
 * no values then.
 */
export interface SchemeSetting {
  id: string;
  name: string;
  holds?: "amount";
  values: readonly { value: string; name: string }[];
}

/**
 * A scheme whose tax is a rate of turnover instead of output less input.
 * - `rates`: the schedule of the rate by the answer to the setting `by`; `firstYear`: points off the rate until the day
 *   before the first anniversary of the registration.
 * - `takes`: the treatments of sales that make the turnover, tax included; `replaces`: those of purchases whose tax is not
 *   deducted; `outside`: codes taxed the ordinary way. Imports keep what is due, and are not deducted.
 * - `capital`: codes of purchases whose tax stays deductible, from which amount a line on, tax included.
 * - `limitedCost`: another rate where the goods bought come to less than a share of turnover, or than a sum a year; what
 *   is booked to accounts of these topics, or bought with these codes, is not counted.
 * - `leaving`: income with tax in twelve months, minor units, above which it is left.
 * - `boxes`: where its tax, its turnover, the tax that stays deductible and the net of these purchases stand.
 */
export interface TurnoverRate {
  kind: "turnover-rate";
  rates: { by: string; schedules: Readonly<Record<string, string>> };
  firstYear?: string;
  takes: readonly Treatment[];
  replaces: readonly Treatment[];
  outside: readonly string[];
  capital?: { codes: readonly string[]; from: number };
  limitedCost?: {
    schedule: string;
    share: string;
    aYear: number;
    notTopics: readonly string[];
    notCodes: readonly string[];
  };
  leaving?: { above: number };
  boxes: { tax: string; turnover: string; input: string; purchases: string };
}

/**
 * A scheme whose tax is inside the margin of a period's pool: all that was sold less all that was bought. A margin below
 * nought bears no tax, and is carried to the next period while the scheme lasts.
 * - `sales`, `purchases`: codes of what is in the pool; `rate`: the schedule of the rate inside the margin.
 * - `upTo`: the most a piece may have cost, minor units.
 * - `settings`: which answers hold the stock at cost and the negative margin it begins with, and the stock it ends with.
 * - `closingAbove`: tax on the stock it ends with that is left alone, minor units; left out where that stock is not taxed.
 * - `boxes`: where the tax stands; the box whose value the tax is taken off; the box that holds the margin without tax.
 */
export interface MarginPool {
  kind: "margin-pool";
  sales: readonly string[];
  purchases: readonly string[];
  rate: string;
  upTo: number;
  settings: { openingStock: string; brought: string; closingStock?: string };
  closingAbove?: number;
  boxes: { tax?: string; lessTax?: string; margin?: string };
}

/** A special scheme of a jurisdiction: data for a kind that several share. */
export interface SchemeDefinition {
  id: string;
  name: string;
  levy: string;
  settings: readonly SchemeSetting[];
  /**
   * Who may use it and how it is left, each a sentence with its source. `turnoverUpTo`: met as long as taxable turnover
   * without tax of the last twelve months is at most this, minor units.
   */
  conditions: readonly { says: string; source: string; turnoverUpTo?: number }[];
  /** What its invoices and returns look like otherwise. */
  note: string;
  source: string;
  rule: TurnoverRate | MarginPool | Attribution;
}

/** A scheme a registration is on, between two days, both included. */
export interface SchemeInForce {
  scheme: string;
  from: CalendarDate;
  to: CalendarDate | null;
  settings: Readonly<Record<string, string>>;
}

/** A step of the workpaper: what it is, how it is worked out, and what it comes to in minor units. */
export interface SchemeStep {
  id: string;
  words: string;
  arithmetic: string;
  amount: number;
  /** Where it stands on the return. */
  box?: string;
  /** What it opens, where that is not the workpaper. */
  ref?: string;
  /** The days of the supplies it is made of, where it is not made of all. */
  days?: readonly CalendarDate[];
}

/** What a scheme puts on a return. */
export interface SchemeResult {
  steps: SchemeStep[];
  /** What its lines make owed, less what they deduct. */
  owed: number;
}

/** The schemes a jurisdiction offers; none where it says nothing. */
export function schemesOf(pack: { schemes?: readonly SchemeDefinition[] }): readonly SchemeDefinition[] {
  return pack.schemes ?? [];
}

/** The scheme a registration is on, on a day. */
export function schemeOn(schemes: readonly SchemeInForce[], day: CalendarDate): SchemeInForce | undefined {
  return schemes.find(({ from, to }) => from <= day && (to === null || day <= to));
}
