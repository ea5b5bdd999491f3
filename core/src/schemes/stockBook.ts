import { at } from "../at.ts";
import { partInside } from "../money/partInside.ts";
import { roundExact } from "../money/roundExact.ts";

/**
 * The tax inside a margin; a loss bears none. Minor units, half up to the minor unit once.
 * @param rate percent on the price without tax
 * @source VATA 1994 s.50A; Directive 2006/112/EC art. 315, 317
 */
export function taxInside(margin: number, rate: string): number {
  return margin <= 0 ? 0 : partInside(margin, rate);
}

/**
 * The price of a lot shared among its parts in proportion to their values, each rounded half up; what is left over goes
 * to the part of the largest value. Where no part has a value, each is worth the same.
 * @returns prices that sum to the price of the lot, in the order of the parts
 */
export function sharedByValue(price: number, values: readonly number[]): number[] {
  const sum = values.reduce((total, value) => total + value, 0);
  const weights = sum === 0 ? values.map(() => 1) : values;
  const whole = BigInt(weights.reduce((total, value) => total + value, 0));
  const shares = weights.map((value) => roundExact({ n: BigInt(price) * BigInt(value), d: whole }));
  const largest = weights.indexOf(Math.max(...weights));
  const left = price - shares.reduce((total, share) => total + share, 0);
  return shares.map((share, index) => (index === largest ? at(shares, index) + left : share));
}
