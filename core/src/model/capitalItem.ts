import type { CalendarDate } from "../calendar/date.ts";
import type { Attribution, SignedBox } from "./attribution.ts";

/**
 * A kind of capital item. `years`: how long its tax is adjusted; `from`: least cost without tax, or least tax, minor units.
 */
export interface CapitalKind {
  id: string;
  name: string;
  years: number;
  from: number;
  of: "net" | "tax";
}

/**
 * How tax on a capital item follows its use over years.
 * - `time`: the stretches of it: `years` end with tax years, the first one with that of the first use; with `first-year`
 *   that one is twelve months; `months-of-years` are calendar years by their months; `months` are months.
 * - `share`: where the deductible share of a stretch comes from: typed for it; typed for all time up to its end, which the
 *   whole tax follows (`to-date`); or the share of taxable turnover of the period (`turnover`, by `ratio`).
 * - `yearEnds`: the usual last month of a tax year, 1 to 12; `fixed` where there is no other.
 * - `wait`: months after the period of the first use before the first stretch can begin.
 * - `reported`: on the return that holds the last day of the stretch, the `next` one, or the one after (`second`).
 * - `least`: a change below so many points, of at most so much in minor units where that is said, is left alone.
 * - `more`, `less`: where it stands by levy what is deducted more, and what is taken back.
 * - `suggested`: codes of purchases that may belong on the list.
 */
export interface CapitalItems {
  kind: "capital-items";
  levies: readonly string[];
  kinds: readonly CapitalKind[];
  time: "years" | "first-year" | "months-of-years" | "months";
  share: "typed" | "to-date" | "turnover";
  ratio?: Attribution["ratio"];
  yearEnds: { usual: number; fixed: boolean };
  wait?: number;
  reported: "with" | "next" | "second";
  least?: { points: string; upTo?: number };
  boxes: Readonly<Record<string, { more: SignedBox; less: SignedBox }>>;
  suggested: readonly string[];
  says: string;
  source: string;
}

/** How a capital item leaves the business: sold with tax or exempt, or nothing is left of it. */
export const CAPITAL_ENDS = {
  taxed: "sold with tax",
  exempt: "sold without tax",
  gone: "destroyed, stolen or worn out",
} as const;
export type CapitalEnd = keyof typeof CAPITAL_ENDS;

/**
 * A capital item. `taxes`: the tax it bore by levy, minor units; `share`: the percentage of it deducted at first, a decimal;
 * `uses`: the share of each stretch by its last day.
 */
export interface CapitalItem {
  no: number;
  name: string;
  kind: string;
  firstUse: CalendarDate;
  net: number;
  taxes: Readonly<Record<string, number>>;
  share: string;
  yearEnds: number;
  uses: Readonly<Record<CalendarDate, string>>;
  ended: { on: CalendarDate; how: CapitalEnd } | null;
}

/** The rule of a jurisdiction for a registration for these levies, where it has one. */
export function capitalItemsOf(
  { capitalItems }: { capitalItems?: CapitalItems | undefined },
  levies: readonly string[],
): CapitalItems | undefined {
  return capitalItems?.levies.some((levy) => levies.includes(levy)) ? capitalItems : undefined;
}
