import { MONTHS } from "../../calendar/months.ts";
import type { Attribution, AttributionBoxes, SignedBox } from "../../model/attribution.ts";
import type { SchemeSetting } from "../../model/scheme.ts";

/** The names of the answers, for the rule. */
export const SHARED_SETTINGS: NonNullable<Attribution["settings"]> = {
  yearEnds: "yearEnds",
  rate: "rate",
  percent: "percent",
  adjusted: "adjusted",
};

/**
 * What is asked of who shares tax on mixed use.
 * @param yearEnds months in which the tax year can end, 1 to 12, the usual one first
 * @param rate the usual way of a period
 * @param adjusted the usual return of the yearly adjustment
 */
export function sharingSettings(
  yearEnds: readonly number[],
  rate: "period" | "year-before",
  adjusted: "next" | "last",
): SchemeSetting[] {
  const usualFirst = <Value extends { value: string }>(values: Value[], usual: string): Value[] =>
    [...values].sort((a, b) => Number(b.value === usual) - Number(a.value === usual));
  return [
    {
      id: "yearEnds",
      name: "The tax year ends in",
      values: yearEnds.map((month) => ({ value: String(month), name: MONTHS[month - 1] ?? String(month) })),
    },
    {
      id: "rate",
      name: "Percentage of a period",
      values: usualFirst(
        [
          { value: "period", name: "its own" },
          { value: "year-before", name: "that of the tax year before" },
        ],
        rate,
      ),
    },
    {
      id: "percent",
      name: "Percentage of the year before, where it is not in these books",
      holds: "amount",
      values: [],
    },
    {
      id: "adjusted",
      name: "Yearly adjustment",
      values: usualFirst(
        [
          { value: "next", name: "on the first return of the next tax year" },
          { value: "last", name: "on the last return of the tax year" },
        ],
        adjusted,
      ),
    },
  ];
}

const signed = (text: string): SignedBox => ({
  box: text.slice(1),
  sign: text.startsWith("-") ? -1 : 1,
});

/** Boxes written as a sign and the box: `-4`. */
export function sharingBoxes(refused: string, allowed: string, more: string, less: string): AttributionBoxes {
  return { refused: signed(refused), allowed: signed(allowed), more: signed(more), less: signed(less) };
}

/** Every month, the usual one first. */
export function monthsFrom(usual: number): number[] {
  return [usual, ...Array.from({ length: 12 }, (_, index) => index + 1).filter((month) => month !== usual)];
}
