import type { Attribution } from "./attribution.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { RetailTakings } from "./retailTakings.ts";
import type { ResaleCredit } from "./resaleCredit.ts";
import type { YearlyAddBack } from "./yearlyAddBack.ts";
import type { YearlyRebate } from "./yearlyRebate.ts";
import type { PercentageSplit } from "./percentageSplit.ts";
import type { RatioCredit } from "./ratioCredit.ts";
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
 * A scheme whose tax is a rate of turnover, or of the tax charged on it, instead of output less input.
 * - `rates`: the schedule of the rate by the answers to the settings `by`, joined by "/"; with `bands` the rate of tax on
 *   the supply is the last part of the key. `of`: turnover with tax, or the tax.
 * - `firstYear`: points off the rate until the day before the first anniversary of the registration.
 * - `takes`: the treatments of sales that make the turnover, tax included; `replaces`: those of purchases whose tax is not
 *   deducted; `undeducted`: those whose tax stays due and is not deducted; `outside`: codes taxed the ordinary way.
 * - `capital`: codes of purchases whose tax stays deductible, from which amount a line on, tax included.
 * - `limitedCost`: another rate where the goods bought come to less than a share of turnover, or than a sum a year; what
 *   is booked to accounts of these topics, or bought with these codes, is not counted.
 * - `credits`: by the same answers the schedule of what is given back of turnover whose rate is nought.
 * - `leaving`: income with tax in twelve months, minor units, above which it is left.
 * - `boxes`: where its tax, its turnover, the tax that stays deductible, the net of these purchases, and what is given back
 *   stand; `drops`: those that lose what the facts it replaces would put there.
 */
export interface TurnoverRate {
  kind: "turnover-rate";
  of: "turnover" | "tax";
  rates: { by: readonly string[]; bands?: true; schedules: Readonly<Record<string, string>> };
  firstYear?: string;
  takes: readonly Treatment[];
  replaces: readonly Treatment[];
  undeducted: readonly Treatment[];
  outside: readonly string[];
  capital?: { codes: readonly string[]; from: number };
  limitedCost?: {
    schedule: string;
    share: string;
    aYear: number;
    notTopics: readonly string[];
    notCodes: readonly string[];
  };
  credits?: Readonly<Record<string, string>>;
  firstSlice?: FirstSlice;
  leaving?: { above: number };
  boxes: { tax: string; turnover: readonly string[]; input: string; purchases?: string; credit?: string };
  drops: readonly string[];
}

/**
 * A share, in percent, of the first turnover of each fiscal year that is given back. `upTo`: how much of it, minor units;
 * `setting`: the answer that holds what of it was used before the scheme began in these books; `yearEnds`: the option of
 * the registration that says the last month of the year.
 */
export interface FirstSlice {
  share: string;
  upTo: number;
  setting: string;
  yearEnds: string;
  says: string;
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

/** Taxable turnover of some time, without tax and with it, and taxable purchases without tax; minor units. */
export interface Turnover {
  net: number;
  withTax: number;
  purchases: number;
}

/** A special scheme of a jurisdiction: data for a kind that several share. */
export interface SchemeDefinition {
  id: string;
  name: string;
  levies: readonly string[];
  /** Whether what its user is or does decides, so that it is no choice among methods. */
  byStatus?: true;
  /** Other schemes that cannot be in force beside it. Two that replace the same levy never can. */
  excludes?: readonly string[];
  settings: readonly SchemeSetting[];
  /**
   * Who may use it and how it is left, each a sentence with its source. `limit`: met as long as taxable turnover of the
   * last twelve months, with tax or without, or taxable purchases, are at most this, minor units.
   */
  conditions: readonly {
    says: string;
    source: string;
    limit?: { upTo: number; of: keyof Turnover };
  }[];
  /** What its invoices and returns look like otherwise. */
  note: string;
  source: string;
  rule:
    | TurnoverRate
    | MarginPool
    | Attribution
    | RatioCredit
    | RetailTakings
    | PercentageSplit
    | YearlyRebate
    | YearlyAddBack
    | ResaleCredit;
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
  /** The days and the codes of the supplies it is made of, where it is not made of all. */
  days?: readonly CalendarDate[];
  codes?: readonly string[];
}

/** The codes of takings under a scheme of shops; none under any other. */
export function takingsCodesOf(rule: SchemeDefinition["rule"]): readonly string[] {
  if (rule.kind === "percentage-split") return rule.sales.codes;
  return rule.kind === "retail-takings" ? [rule.takings, ...rule.rates.map(({ takings }) => takings)] : [];
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

/** Whether a scheme takes facts off the return and puts its own figures in their place. */
export function replacesFacts({ kind }: SchemeDefinition["rule"]): boolean {
  return kind === "turnover-rate" || kind === "ratio-credit";
}

/** Whether two schemes of a jurisdiction cannot be in force on the same day. */
export function excludeEachOther(a: SchemeDefinition, b: SchemeDefinition): boolean {
  const sameLevy = a.levies.some((levy) => b.levies.includes(levy));
  const sameKind = a.rule.kind === b.rule.kind || (replacesFacts(a.rule) && replacesFacts(b.rule));
  return (
    a.id === b.id ||
    (sameLevy && sameKind && a.rule.kind !== "margin-pool") ||
    (a.excludes ?? []).includes(b.id) ||
    (b.excludes ?? []).includes(a.id)
  );
}

/** The first of these schemes that is in force on a day. */
export function schemeOn(schemes: readonly SchemeInForce[], day: CalendarDate): SchemeInForce | undefined {
  return schemes.find(({ from, to }) => from <= day && (to === null || day <= to));
}
