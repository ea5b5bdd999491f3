import { agreement } from "./agreement.ts";
import type { Agreement, Explained } from "./agreement.ts";

/**
 * A box on one return: as declared, before its rounding, what the facts reported in the period alone come to, and what was
 * adjusted by hand. Minor units.
 */
export interface BoxOnReturn {
  declared: number;
  exact: number;
  ofFacts: number;
  byHand: number;
}

/** What a box is over a year; minor units. */
export interface BoxOfYear {
  /** The box worked out at once from the facts whose own period is in the year. */
  ledger: number;
  /** Facts of earlier years that returns of this year report, and facts of this year that later returns do, or none yet. */
  lateIn: number;
  lateOut: number;
  returns: readonly BoxOnReturn[];
  /** Its formula reads other boxes: it need not add up over the year, for instance where it is never below nothing. */
  isWorkedOut: boolean;
}

export const YEAR_CAUSES = {
  "late-in": "Of earlier years, reported in this one",
  "late-out": "Of this year, on no return of it yet",
  "by-hand": "Adjusted by hand, with reasons",
  scheme: "Special schemes and methods",
  form: "Worked out return by return: nothing below nought, carried over, chosen",
  rounding: "Rounding, return by return",
} as const;

/** Of the causes those that each return has a part of: what it is of a return. */
export const ON_RETURN = {
  "by-hand": ({ byHand }) => byHand,
  scheme: ({ exact, ofFacts, byHand }) => exact - ofFacts - byHand,
  rounding: ({ declared, exact }) => declared - exact,
} as const satisfies Partial<Record<keyof typeof YEAR_CAUSES, (one: BoxOnReturn) => number>>;

/**
 * From the ledger of a year to what its returns declare for a box. A year adds its returns as they are filed, never the
 * boxes of the whole stretch: what return by return is rounded, carried or capped is a cause of its own.
 * Source: common practice, no source.
 */
export function yearRollUp({ ledger, lateIn, lateOut, returns, isWorkedOut }: BoxOfYear): Agreement {
  const sum = (of: (one: BoxOnReturn) => number) => returns.reduce((total, one) => total + of(one), 0);
  const cause = (id: keyof typeof YEAR_CAUSES, amount: number): Explained => ({
    cause: { id, name: YEAR_CAUSES[id], found: "rule" },
    amount,
    rows: amount === 0 ? 0 : 1,
  });
  return agreement(
    ledger,
    sum(({ declared }) => declared),
    [
      cause("late-in", lateIn),
      cause("late-out", lateOut === 0 ? 0 : -lateOut),
      cause("by-hand", sum(ON_RETURN["by-hand"])),
      cause("scheme", sum(ON_RETURN.scheme)),
      cause("form", isWorkedOut ? sum(({ ofFacts }) => ofFacts) - (ledger + lateIn - lateOut) : 0),
      cause("rounding", sum(ON_RETURN.rounding)),
    ],
  );
}
