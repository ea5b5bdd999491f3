import type { CalendarDate } from "../calendar/date.ts";
import type { Frequency } from "../calendar/filingPeriods.ts";
import type { BoxDefinition } from "./returnForm.ts";

/**
 * How a charge for being late is reckoned.
 * - `share`: once, a percentage of what is unpaid at the end of the day `after` days after it was due.
 * - `yearly`: simple interest by a schedule of yearly rates, day by day over 365 from the day after these days on.
 * - `monthly`: a percentage of what is unpaid as each month begins (`begun`) or is full, at most so many times; the sum
 *   taken down to a multiple of `downTo` minor units.
 * - `fee`: an amount a day, a stretch of 28 days, a month, or once, each of them begun; `nil` where nothing is owed; at most.
 */
export type LateWay =
  | { way: "share"; percent: string; after: number }
  | { way: "yearly"; schedule: string; after: number }
  | { way: "monthly"; percent: string; after: number; begun: boolean; most: number; downTo?: number }
  | { way: "fee"; each: "day" | "28 days" | "month" | "once"; amount: number; nil?: number; most: number };

/**
 * A charge the law has for filing or paying late. `from`, `to`: the due days it holds for. `heads`: what is reckoned apart,
 * as formulas over the boxes of the return by the name of the head; `rounding` of each, where that is not the minor unit.
 */
export interface LateCharge {
  id: string;
  name: string;
  kind: "interest" | "penalty";
  on: "filing" | "payment";
  levies?: readonly string[];
  frequencies?: readonly Frequency[];
  from: CalendarDate;
  to: CalendarDate | null;
  way: LateWay;
  heads?: Readonly<Record<string, string>>;
  rounding?: BoxDefinition["rounding"];
  says: string;
  source: string;
  /** Why the figure should be looked up before it is relied on. */
  doubt?: string;
}
