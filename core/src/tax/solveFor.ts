import { FiscalError } from "../errors.ts";
import { add, compare, divide, exactFromInteger, multiply, subtract, ZERO } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";

const FAR = exactFromInteger(100_000_000);
const FINEST = 1_000_000n;
const MOST_STEPS = 200;

/**
 * The x for which a rising function gives `target`, in exact minor units. Functions made of straight pieces
 * (percentages, fixed amounts, caps) are solved exactly; others to a millionth of a minor unit.
 * @throws FiscalError `tax/no-price` where no price gives the target
 */
export function solveFor(rising: (x: Exact) => Exact, target: Exact): Exact {
  return onStraightLine(rising, target, ZERO, FAR) ?? bySearch(rising, target);
}

/** The x on the straight line through two points, where the function really gives the target there. */
function onStraightLine(
  rising: (x: Exact) => Exact,
  target: Exact,
  from: Exact,
  to: Exact,
): Exact | undefined {
  const start = rising(from);
  const slope = divide(subtract(rising(to), start), subtract(to, from));
  if (slope.n <= 0n) return undefined;
  const x = lowest(add(from, divide(subtract(target, start), slope)));
  return compare(rising(x), target) === 0 ? x : undefined;
}

function bySearch(rising: (x: Exact) => Exact, target: Exact): Exact {
  const [low, high] = bracket(rising, target);
  let [from, to] = [low, high];
  for (let step = 0; step < MOST_STEPS && to - from > 1n; step += 1) {
    const middle = (from + to) / 2n;
    if (compare(rising({ n: middle, d: FINEST }), target) <= 0) from = middle;
    else to = middle;
  }
  const x: Exact = { n: from, d: FINEST };
  return onStraightLine(rising, target, x, { n: to, d: FINEST }) ?? x;
}

function bracket(rising: (x: Exact) => Exact, target: Exact): [bigint, bigint] {
  let reach = (target.n < 0n ? -target.n : target.n) / target.d + 1n;
  for (let step = 0; step < 60; step += 1) {
    const low = rising({ n: -reach, d: 1n });
    const high = rising({ n: reach, d: 1n });
    if (compare(low, target) <= 0 && compare(high, target) >= 0) return [-reach * FINEST, reach * FINEST];
    reach *= 2n;
  }
  throw new FiscalError(
    "tax/no-price",
    "No price without tax gives this amount with the formula of the code. Type the amount tax-exclusive, or correct the formula.",
    "amount",
  );
}

function lowest({ n, d }: Exact): Exact {
  let [a, b] = [n < 0n ? -n : n, d];
  while (b !== 0n) [a, b] = [b, a % b];
  return a === 0n ? ZERO : multiply({ n: n / a, d: d / a }, { n: 1n, d: 1n });
}
