import { exactFromDecimal, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import type { RoundingMode } from "../money/roundExact.ts";

/**
 * How a registration rounds tax. `line`: each line's tax is rounded. `document`: the exact taxes of one levy and
 * rate are summed, rounded once, and spread back over the lines. `step`: whole minor units to round to.
 * `lineStep`: with level `document`, each line is first rounded half up to this fraction of a minor unit
 * ("0.1": a tenth of a penny, as VAT Notice 700 section 17.5.1 allows).
 */
export interface Rounding {
  level: "line" | "document";
  mode: RoundingMode;
  step?: number;
  lineStep?: string;
}

export const ROUND_EACH_LINE: Rounding = { level: "line", mode: "half-up" };

export function roundTax(exact: Exact, rounding: Rounding): number {
  return roundExact(exact, rounding.mode, rounding.step ?? 1);
}

/** The exact tax of a line after rounding to `lineStep`, where the registration does that. */
export function afterLineStep(exact: Exact, rounding: Rounding): Exact {
  if (rounding.lineStep === undefined) return exact;
  const step = exactFromDecimal(rounding.lineStep);
  const steps = roundExact({ n: exact.n * step.d, d: exact.d * step.n });
  return multiply({ n: BigInt(steps), d: 1n }, step);
}

/** The rounding in words, for trails: "half up, by line". */
export function roundingInWords(rounding: Rounding): string {
  const mode = { "half-up": "half up", "half-even": "half to even", down: "down", up: "up" }[rounding.mode];
  const level = rounding.level === "line" ? "by line" : "by document, levy and rate";
  const step = rounding.lineStep ? `, each line first to ${rounding.lineStep} of the smallest unit` : "";
  return `${mode}, ${level}${step}`;
}
