import { add, divide, exactFromDecimal, multiply, ZERO } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import type { Component } from "../model/taxCode.ts";

/**
 * A component with what is in force for it: `rate` a percentage or an amount in major units as a decimal string,
 * null without one; `rates` the schedules its formula reads.
 */
export interface RatedComponent {
  component: Component;
  rate: string | null;
  rates?: Readonly<Record<string, string>>;
}

/**
 * A stack of percentages on the net, with tax on tax, worked out once for all lines that bear it.
 * - `own`: for each component its rate as a fraction of its own base, `n / d`.
 * - `onNet`: for a net of 1, base and tax of each component over one denominator.
 * - `onGross`: the same for a gross of 1, with the net.
 * The whole numbers are small enough that an amount up to `limit` times any of them stays exact in a number.
 */
export interface LevyStack {
  own: readonly { n: number; d: number }[];
  onNet: { d: number; base: readonly number[]; tax: readonly number[] };
  onGross: { d: number; base: readonly number[]; tax: readonly number[] };
  limit: number;
}

const ONE: Exact = { n: 1n, d: 1n };
const HUNDRED: Exact = { n: 100n, d: 1n };
const EXACT_BELOW = 2 ** 51;
const stacks = new WeakMap<readonly RatedComponent[], LevyStack | null>();
const factors = new Map<string, Exact>();

/** The stack of these components, or null where they are more than percentages on the net. */
export function levyStack(components: readonly RatedComponent[]): LevyStack | null {
  const known = stacks.get(components);
  if (known !== undefined) return known;
  const stack = components.every(isPlain) ? stackOf(components) : null;
  stacks.set(components, stack);
  return stack;
}

function isPlain({ component }: RatedComponent): boolean {
  const { base } = component;
  const onNet =
    base === undefined || (base.of !== "gross" && base.over === undefined && base.upTo === undefined);
  return (
    onNet &&
    (component.rate.kind === "percent" || component.rate.kind === "none" || component.rate.kind === "typed")
  );
}

function stackOf(components: readonly RatedComponent[]): LevyStack | null {
  const parts = effectiveFactors(components);
  const f = add(ONE, chargedFactor(components, parts));
  if (f.n <= 0n) return null;
  const shares = components.map(({ component, rate }) => multiply(percentage(rate), share(component)));
  const onNet = commonParts(parts, ONE);
  const onGross = commonParts(parts, f);
  const largest = [...shares.flatMap(({ n, d }) => [n, d]), ...onNet.numbers, ...onGross.numbers].reduce(
    (max, one) => (one > max ? one : max),
    1n,
  );
  if (largest > BigInt(Number.MAX_SAFE_INTEGER)) return null;
  return {
    own: shares.map(({ n, d }) => ({ n: Number(n), d: Number(d) })),
    onNet: onNet.parts,
    onGross: onGross.parts,
    limit: Math.floor(EXACT_BELOW / (2 * Number(largest))),
  };
}

/** Bases and taxes divided by `by`, on one denominator and in lowest terms. */
function commonParts(parts: readonly { base: Exact; tax: Exact }[], by: Exact) {
  const exacts = parts.flatMap(({ base, tax }) => [divide(base, by), divide(tax, by)]);
  const common = exacts.reduce((product, { d }) => lcm(product, d), 1n);
  const whole = exacts.map(({ n, d }) => n * (common / d));
  const divisor = whole.reduce((a, b) => gcd(a, b), common);
  const numbers = [common / divisor, ...whole.map((one) => one / divisor)];
  const [d = 1, ...rest] = numbers.map(Number);
  return {
    numbers,
    parts: { d, base: rest.filter((_, i) => i % 2 === 0), tax: rest.filter((_, i) => i % 2 === 1) },
  };
}

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y !== 0n) [x, y] = [y, x % y];
  return x === 0n ? 1n : x;
}

function lcm(a: bigint, b: bigint): bigint {
  return (a / gcd(a, b)) * b;
}

/** For a net of 1: the base of each component and its tax, with tax on tax carried along. */
export function effectiveFactors(components: readonly RatedComponent[]): { base: Exact; tax: Exact }[] {
  let onTop = ONE;
  return components.map(({ component, rate }) => {
    const base = multiply(onTop, share(component));
    const tax = component.rate.kind === "percent" ? multiply(base, percentage(rate)) : ZERO;
    if (component.partOfLaterBases) onTop = add(onTop, tax);
    return { base, tax };
  });
}

function chargedFactor(components: readonly RatedComponent[], parts: readonly { tax: Exact }[]): Exact {
  return parts
    .filter((_, index) => components[index]?.component.charged === "charged")
    .reduce((sum, one) => add(sum, one.tax), ZERO);
}

/**
 * The rate of all charged percentages together on a price without tax, as an exact fraction: 29 % with 10 % on
 * top of it is 0.419.
 */
export function effectiveRate(components: readonly RatedComponent[]): Exact {
  return chargedFactor(components, effectiveFactors(components));
}

/** The share of the net a component is charged on, as a fraction. */
export function share(component: Component): Exact {
  return component.base?.share === undefined ? ONE : percentage(component.base.share);
}

/** A percentage as a fraction: "20" is 1/5. Remembered, as the same few rates come again and again. */
export function percentage(rate: string | null): Exact {
  if (rate === null) return ZERO;
  let factor = factors.get(rate);
  if (!factor) {
    factor = divide(exactFromDecimal(rate), HUNDRED);
    factors.set(rate, factor);
  }
  return factor;
}
