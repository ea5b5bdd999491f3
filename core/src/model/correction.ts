import type { CalendarDate } from "../calendar/date.ts";

/**
 * What an item of a sealed period is that turned up after it: a purchase whose tax is deducted only now, a change of
 * price, an error, an error of judgement, or a deliberate one.
 */
export const LATE_KINDS = ["late-claim", "credit-note", "error", "judgement", "deliberate"] as const;
export type LateKind = (typeof LATE_KINDS)[number];

/**
 * How long something can still be put right: `years` counted from the end of its `own-period`, from the day the return
 * of that was due (`own-due`), or from the `document`; or until a `day` (month and day) after the year in which it
 * falls, which ends on `yearEnds`.
 */
export type TimeLimit =
  { years: number; from: "own-period" | "own-due" | "document" } | { day: string; yearEnds: string };

/**
 * Conditions on errors, all of which must hold.
 * - `kinds`: of these kinds only. `owed`: owed by the business to the authority, or to it.
 * - `upTo`, `below`: the net error, minor units. `share`: at most a percentage of a box of this return, with a ceiling.
 * - `months`: at most so many since the return of the period was due. `option`: a choice of the registration.
 * - `values`: values in error at most a percentage of a box of their own period, or of another where that is empty.
 */
export interface CorrectionTest {
  kinds?: readonly LateKind[];
  owed?: "by" | "to";
  upTo?: number;
  below?: number;
  share?: { percent: string; box: string; ceiling?: number };
  months?: number;
  option?: readonly [id: string, value: string];
  values?: { percent: string; box: string; orBox?: string };
}

export type CorrectionPlace = "on-return" | "separately" | "amend";

/** What the law says of errors that pass a test: where they are put right, and in what words. */
export interface CorrectionCase {
  when: CorrectionTest;
  way: CorrectionPlace;
  says: string;
  source?: string;
}

/**
 * How errors of earlier periods are put right.
 * - `claims`: until when tax on a purchase can be deducted on a later return as an ordinary claim, and what comes after;
 *   left out where nothing is deducted, or a late bill is an error as any other.
 * - `limit`: until when an error can be put right at all.
 * - `per`: whether the errors of all periods count together, or those of each period.
 * - `counts`: errors both ways netted, or each way for itself.
 * - `cases`: the first whose test is passed answers; the last one has no test.
 */
export interface CorrectionRule {
  claims?: { limit: TimeLimit; after: "barred" | "reason"; source: string };
  limit: TimeLimit;
  per: "return" | "period";
  counts: "net" | "each-way";
  cases: readonly CorrectionCase[];
  source: string;
}

/** The items of one period and kind; signed minor units, `values` the sum of values without their sign. */
export interface LateGroup {
  /** End of the period they belong to. */
  period: CalendarDate;
  kind: LateKind;
  count: number;
  output: number;
  input: number;
  values: number;
  /** The earliest document among them. */
  oldest: CalendarDate;
}

/** Where nobody said what the law is: everything is put right on the next return, for four years. */
export const PLAIN_CORRECTION: CorrectionRule = {
  claims: { limit: { years: 4, from: "own-period" }, after: "barred", source: "common practice, no source" },
  limit: { years: 4, from: "own-period" },
  per: "return",
  counts: "net",
  cases: [{ when: {}, way: "on-return", says: "corrected on this return" }],
  source: "common practice, no source",
};
