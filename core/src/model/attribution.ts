import type { Treatment } from "./taxCode.ts";

/**
 * A test under which little enough is exempt for all tax to be deducted: `measure` of the time is at most `aMonth` minor
 * units on average, and exempt supplies (or the tax on what they cost) at most `share` percent of all.
 */
export interface DeMinimisTest {
  measure: "input" | "not-taxable-input" | "exempt-input" | "exempt-supplies";
  aMonth: number;
  share: string;
  shareOf: "supplies" | "input";
  /** It is tested for so many months up to the end of the period. */
  months?: number;
  says: string;
}

/** A box and the sign with which an amount goes there. */
export interface SignedBox {
  box: string;
  sign: 1 | -1;
}

/**
 * Where the parts of a levy stand: what is refused of shared tax; what is allowed after all of tax on exempt supplies; what
 * the yearly adjustment gives more, and what it takes back.
 */
export interface AttributionBoxes {
  refused: SignedBox;
  allowed: SignedBox;
  more: SignedBox;
  less: SignedBox;
}

/**
 * A scheme under which tax on purchases of mixed use is shared between taxable and exempt supplies.
 * - `residual`, `exempt`: codes of what serves both, and of what serves exempt supplies only.
 * - `ratio`: the share that is deducted: taxable supplies of all, or tax on what serves taxable ones of that on what is
 *   attributed. `leftOut`: codes of sales that do not count; `levies`: those whose facts hold each sale once, where a
 *   sale bears several.
 * - `rounding`: of the percentage; left out where it is exact. `finer`: where shared tax is more than `above` a month on
 *   average. `full`: the percentage from which all is deducted.
 * - `private`: a further percentage of shared tax that is refused where some of it is used privately, by a setting.
 * - `idle`: a period without turnover goes by the last one before it that had some.
 * - `byHand`: its codes may be used without it, the share being typed.
 * - `settings`: which answers say the last month of the tax year (1 to 12), whether a period goes by its own percentage
 *   (`period`) or by that of the year before (`year-before`), that percentage where it is not in these books, and whether
 *   the year is adjusted on its `last` return or the `next` one; left out where no year is adjusted.
 */
export interface Attribution {
  kind: "attribution";
  residual: readonly string[];
  exempt: readonly string[];
  ratio: {
    of: "supplies" | "inputs";
    taxable: readonly Treatment[];
    exempt: readonly Treatment[];
    leftOut: readonly string[];
    levies?: readonly string[];
  };
  rounding?: {
    mode: "up" | "down" | "half-up";
    decimals: number;
    finer?: { above: number; decimals: number };
  };
  full?: string;
  deMinimis?: readonly DeMinimisTest[];
  private?: { setting: string; value: string; percent: string };
  idle?: true;
  byHand?: boolean;
  settings?: { yearEnds: string; rate: string; percent: string; adjusted: string };
  boxes: Readonly<Record<string, AttributionBoxes>>;
}
