import { at } from "../at.ts";
import { safeInteger } from "./roundExact.ts";

/**
 * Splits `total` minor units over `weights` so that the parts sum to it exactly: each part is its share cut
 * towards zero, the units left over go one each to the largest remainders, ties to the earlier part.
 * With all weights zero the whole goes to the first part.
 * @param total whole minor units, any sign
 * @param weights one whole number a part; negative weights take a negative share
 * @returns whole minor units, as many as there are weights
 * @source largest-remainder method, common practice, no source
 */
export function allocate(total: number, weights: readonly (number | bigint)[]): number[] {
  if (weights.length === 0) return [];
  const parts = weights.map(BigInt);
  const sum = parts.reduce((a, b) => a + b, 0n);
  if (sum === 0n) return weights.map((_, index) => (index === 0 ? total : 0));
  const whole = BigInt(total);
  const shares = parts.map((weight) => (whole * weight) / sum);
  const remainders = parts.map((weight, index) => {
    const rest = whole * weight - at(shares, index) * sum;
    return rest < 0n ? -rest : rest;
  });
  let left = whole - shares.reduce((a, b) => a + b, 0n);
  const step = left < 0n ? -1n : 1n;
  const order = remainders.map((_, index) => index).sort((a, b) => compareRemainders(remainders, a, b));
  for (let i = 0; left !== 0n; i = (i + 1) % order.length) {
    const index = at(order, i);
    shares[index] = at(shares, index) + step;
    left -= step;
  }
  return shares.map(safeInteger);
}

function compareRemainders(remainders: readonly bigint[], a: number, b: number): number {
  const left = at(remainders, a);
  const right = at(remainders, b);
  return left === right ? a - b : left > right ? -1 : 1;
}
