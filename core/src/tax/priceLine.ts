import { add, divide, exactFromDecimal, exactFromInteger, multiply, ZERO } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import type { PriceMode } from "./documentInput.ts";
import { roundTax } from "./rounding.ts";
import type { Rounding } from "./rounding.ts";
import type { Component } from "./taxCode.ts";

/** A component with the rate that is in force; `rate` a percentage as a decimal string, or null without one. */
export interface RatedComponent {
  component: Component;
  rate: string | null;
}

/**
 * The tax of one component on one line, in minor units.
 * - `base`: what the rate was applied to; `exact`: the tax before rounding; `calculated`: after it.
 * - `tax`: what counts, the typed figure where there is one.
 * - `recoverable`: the part of `tax` that is deducted on a purchase, rounded half up.
 */
export interface ComponentTax extends RatedComponent {
  base: Exact;
  exact: Exact;
  calculated: number;
  tax: number;
  typed: boolean;
  recoverable: number;
}

const ONE: Exact = { n: 1n, d: 1n };
const HUNDRED: Exact = { n: 100n, d: 1n };
const factors = new Map<string, Exact>();

/**
 * Prices one line: each component's base, exact and rounded tax (engine: exclusive and inclusive pricing).
 * @param amount whole minor units in the mode of the document, after discounts
 * @param typed tax from the paper by levy, whole minor units
 * @returns components in the order of charging; the line's net and gross follow from netAndGross
 */
export function priceLine(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  rounding: Rounding,
  typed: Readonly<Record<string, number>> = {},
): ComponentTax[] {
  return mode === "exclusive"
    ? fromNet(amount, components, rounding, typed)
    : fromGross(amount, components, rounding, typed);
}

function fromNet(
  net: number,
  components: readonly RatedComponent[],
  rounding: Rounding,
  typed: Readonly<Record<string, number>>,
): ComponentTax[] {
  let base = exactFromInteger(net);
  return components.map((rated) => {
    const exact = multiply(base, factorOf(rated.rate));
    const priced = withTax(rated, base, exact, rounding, typed);
    if (rated.component.partOfLaterBases) {
      base = add(base, rounding.level === "line" ? exactFromInteger(priced.tax) : exact);
    }
    return priced;
  });
}

function fromGross(
  gross: number,
  components: readonly RatedComponent[],
  rounding: Rounding,
  typed: Readonly<Record<string, number>>,
): ComponentTax[] {
  const effective = effectiveFactors(components);
  const charged = effective
    .filter((_, index) => components[index]?.component.charged === "charged")
    .reduce((sum, one) => add(sum, one.tax), ZERO);
  const net = divide(exactFromInteger(gross), add(ONE, charged));
  return components.map((rated, index) => {
    const { base, tax } = effective[index] ?? { base: ONE, tax: ZERO };
    return withTax(rated, multiply(net, base), multiply(net, tax), rounding, typed);
  });
}

/** For a net of 1: the base of each component and its tax, with tax on tax carried along. */
function effectiveFactors(components: readonly RatedComponent[]): { base: Exact; tax: Exact }[] {
  let base = ONE;
  return components.map((rated) => {
    const own = base;
    const tax = multiply(own, factorOf(rated.rate));
    if (rated.component.partOfLaterBases) base = add(base, tax);
    return { base: own, tax };
  });
}

/**
 * The rate of all charged components together on a price without tax, as an exact fraction: 29 % with 10 % on
 * top of it is 0.419.
 */
export function effectiveRate(components: readonly RatedComponent[]): Exact {
  return effectiveFactors(components)
    .filter((_, index) => components[index]?.component.charged === "charged")
    .reduce((sum, one) => add(sum, one.tax), ZERO);
}

function withTax(
  rated: RatedComponent,
  base: Exact,
  exactTax: Exact,
  rounding: Rounding,
  typed: Readonly<Record<string, number>>,
): ComponentTax {
  const declaredOnly = rated.component.charged === "declared-only";
  const exact = declaredOnly ? ZERO : exactTax;
  const calculated = exact.n === 0n ? 0 : roundTax(exact, rounding);
  const paper = declaredOnly ? undefined : typed[rated.component.levy];
  const tax = paper ?? calculated;
  return {
    component: rated.component,
    rate: rated.rate,
    base,
    exact,
    calculated,
    tax,
    typed: paper !== undefined,
    recoverable: recoverablePart(tax, rated.component),
  };
}

/** The part of a purchase's tax that is deducted, whole minor units, rounded half up. */
export function recoverablePart(tax: number, component: Component): number {
  if (component.recoverable === "100") return tax;
  if (component.recoverable === "0") return 0;
  return roundExact(multiply(exactFromInteger(tax), factorOf(component.recoverable)));
}

/** Net and gross of a priced line in minor units; the parts always add up to the figure that was typed. */
export function netAndGross(
  amount: number,
  mode: PriceMode,
  taxes: readonly ComponentTax[],
): { net: number; gross: number } {
  let charged = 0;
  for (const one of taxes) if (one.component.charged === "charged") charged += one.tax;
  return mode === "exclusive"
    ? { net: amount, gross: amount + charged }
    : { net: amount - charged, gross: amount };
}

/** A percentage as a fraction: "20" is 1/5. Remembered, as the same few rates come again and again. */
function factorOf(rate: string | null): Exact {
  if (rate === null) return ZERO;
  let factor = factors.get(rate);
  if (!factor) {
    factor = divide(exactFromDecimal(rate), HUNDRED);
    factors.set(rate, factor);
  }
  return factor;
}
