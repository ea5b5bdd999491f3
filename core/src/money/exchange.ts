import { FiscalError } from "../errors.ts";
import { exactFromDecimal } from "./exact.ts";
import { roundExact } from "./roundExact.ts";

/** How one currency becomes another: `rate` units of the other for one unit of this, as a decimal string. */
export interface Exchange {
  rate: string;
  /** Decimals of the currency that is exchanged, and of the one it becomes. */
  fromDigits: number;
  toDigits: number;
}

/**
 * An amount in another currency, rounded half up to its smallest unit.
 * @param amount whole minor units
 * @returns whole minor units of the other currency
 * @throws FiscalError `money/bad-rate` unless the rate is above zero, and what reading a decimal throws
 */
export function exchanged(amount: number, { rate, fromDigits, toDigits }: Exchange): number {
  const factor = exactFromDecimal(rate);
  if (factor.n <= 0n) throw new FiscalError("money/bad-rate", "A rate of exchange is above zero.", "rate");
  return roundExact({
    n: BigInt(amount) * factor.n * 10n ** BigInt(toDigits),
    d: factor.d * 10n ** BigInt(fromDigits),
  });
}
