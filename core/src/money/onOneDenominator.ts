import type { Exact } from "./exact.ts";

/** Exact amounts as whole numbers over one denominator, as weights for allocating. */
export function onOneDenominator(exacts: readonly Exact[]): bigint[] {
  const common = exacts.reduce(
    (product, exact) => (product % exact.d === 0n ? product : product * exact.d),
    1n,
  );
  return exacts.map((exact) => (exact.n * common) / exact.d);
}
