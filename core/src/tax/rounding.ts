import { at } from "../at.ts";
import { exactFromDecimal, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact, safeInteger } from "../money/roundExact.ts";
import type { Rounding } from "../model/rounding.ts";

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

/**
 * Rounds several exact taxes so that they add up to their sum rounded once: each is cut towards zero, the units
 * that are missing go one each to the largest remainders, ties to the earlier tax.
 * @returns whole minor units
 * @source Streamlined Sales and Use Tax Agreement section 324 for the sum; the split is common practice, no source
 */
export function roundTogether(exacts: readonly Exact[], rounding: Rounding): number[] {
  const common = exacts.reduce((product, one) => (product % one.d === 0n ? product : product * one.d), 1n);
  const parts = exacts.map((one) => (one.n * common) / one.d);
  const total = roundTax({ n: parts.reduce((sum, part) => sum + part, 0n), d: common }, rounding);
  const step = BigInt(rounding.step ?? 1);
  const cut = parts.map((part) => (part / (common * step)) * step);
  let missing = BigInt(total) - cut.reduce((sum, part) => sum + part, 0n);
  const unit = missing < 0n ? -step : step;
  const rest = (index: number) => {
    const left = at(parts, index) - at(cut, index) * common;
    return left < 0n ? -left : left;
  };
  const order = parts
    .map((_, index) => index)
    .sort((a, b) => (rest(a) === rest(b) ? a - b : rest(a) > rest(b) ? -1 : 1));
  for (const index of order) {
    if (missing === 0n) break;
    cut[index] = at(cut, index) + unit;
    missing -= unit;
  }
  return cut.map(safeInteger);
}

/** The rounding in words, for trails: "half up, by line". */
export function roundingInWords(rounding: Rounding): string {
  const mode = { "half-up": "half up", "half-even": "half to even", down: "down", up: "up" }[rounding.mode];
  const level = rounding.level === "line" ? "by line" : "by document, levy and rate";
  const together = rounding.combined ? ", all levies together" : "";
  const step = rounding.lineStep ? `, each line first to ${rounding.lineStep} of the smallest unit` : "";
  return `${mode}, ${level}${together}${step}`;
}
