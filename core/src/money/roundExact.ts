import { FiscalError } from "../errors.ts";
import type { Exact } from "./exact.ts";

/**
 * How a half, or anything between two steps, is decided. `half-up` goes away from zero at the half, `down`
 * cuts towards zero, `up` goes away from zero.
 */
export type RoundingMode = "half-up" | "half-even" | "down" | "up";

/**
 * Rounds an exact amount of minor units to whole multiples of `step` minor units.
 * @param value exact minor units
 * @param step whole minor units, 1 or more (5 for cash roundings, 100 for whole units of a two-digit currency)
 * @returns whole minor units
 * @throws FiscalError `money/too-large` beyond the safe integers (about 90 million million units)
 */
export function roundExact(value: Exact, mode: RoundingMode = "half-up", step = 1): number {
  const divisor = value.d * BigInt(step);
  const negative = value.n < 0n;
  const magnitude = negative ? -value.n : value.n;
  let quotient = magnitude / divisor;
  const rest = magnitude - quotient * divisor;
  if (rest !== 0n && roundsAway(mode, rest * 2n, divisor, quotient)) quotient += 1n;
  return safeInteger((negative ? -quotient : quotient) * BigInt(step));
}

function roundsAway(mode: RoundingMode, twiceRest: bigint, divisor: bigint, quotient: bigint): boolean {
  switch (mode) {
    case "down":
      return false;
    case "up":
      return true;
    case "half-up":
      return twiceRest >= divisor;
    case "half-even":
      return twiceRest > divisor || (twiceRest === divisor && quotient % 2n === 1n);
  }
}

/** A bigint as a number, refused when a number could not hold it exactly. */
export function safeInteger(value: bigint): number {
  const result = Number(value);
  if (!Number.isSafeInteger(result)) {
    throw new FiscalError(
      "money/too-large",
      "This amount is too large to be kept exactly. Check the digits.",
    );
  }
  return result === 0 ? 0 : result;
}
