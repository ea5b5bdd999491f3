import { add, exactFromDecimal, exactFromInteger } from "./exact.ts";
import { roundExact } from "./roundExact.ts";

/**
 * What of a total is inside it at a rate on the price without it: total × rate / (100 + rate).
 * @param percent the rate as a decimal
 * @returns minor units, rounded half up once
 */
export function partInside(total: number, percent: string): number {
  const rate = exactFromDecimal(percent);
  const { n, d } = add(exactFromInteger(100), rate);
  return roundExact({ n: BigInt(total) * rate.n * d, d: rate.d * n });
}
