import { MONTHS } from "../../calendar/months.ts";
import type { SchemeSetting } from "../../model/scheme.ts";

const RETURNS = [
  "the last return of the year",
  "the first return after it",
  "the second return after it",
  "the third return after it",
  "the fourth return after it",
  "the fifth return after it",
];

/**
 * What is asked of who takes tax back once a year: the last month of the year, and on which return it is.
 * @param yearEnds months in which the year can end, 1 to 12, the usual one first
 * @param later how many returns after the last one of the year it is at most, and usually
 */
export function yearlySettings(
  yearEnds: readonly number[],
  later: { usual: number; most: number },
): SchemeSetting[] {
  const usualFirst = [later.usual, ...RETURNS.keys()].filter(
    (value, index, all) => value <= later.most && all.indexOf(value) === index,
  );
  return [
    {
      id: "yearEnds",
      name: "The year ends in",
      values: yearEnds.map((month) => ({ value: String(month), name: MONTHS[month - 1] ?? String(month) })),
    },
    {
      id: "later",
      name: "Taken back on",
      values: usualFirst.map((value) => ({ value: String(value), name: RETURNS[value] ?? String(value) })),
    },
  ];
}
