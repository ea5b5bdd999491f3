import { at } from "../at.ts";
import { exactFromInteger, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { ComponentTax } from "./componentTax.ts";
import type { LineDetails } from "./componentTax.ts";
import type { PriceMode } from "../model/document.ts";
import { levyStack, percentage } from "./levyStack.ts";
import type { LevyStack, RatedComponent } from "./levyStack.ts";
import { priceByTrial } from "./priceByTrial.ts";
import { roundTogether } from "./rounding.ts";
import type { Rounding } from "../model/rounding.ts";

const NOTHING: LineDetails = {};

/**
 * Prices one line: each component's base, exact and rounded tax (engine: exclusive and inclusive pricing).
 * @param amount whole minor units in the mode of the document, after discounts
 * @returns components in the order of charging; the line's net and gross follow from netAndGross
 * @throws FiscalError from formulas: `formula/unknown-name`, `tax/no-price`
 */
export function priceLine(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  rounding: Rounding,
  details: LineDetails = NOTHING,
): ComponentTax[] {
  const stack = levyStack(components);
  const plain = rounding.mode === "half-up" && (rounding.step ?? 1) === 1 && details.typed === undefined;
  const taxes =
    stack !== null && plain && amount <= stack.limit && amount >= -stack.limit
      ? priceByStack(amount, mode, components, stack, rounding)
      : priceByTrial(amount, mode, components, rounding, details);
  if (rounding.combined && rounding.level === "line") roundCombined(taxes, rounding, details);
  for (const tax of taxes) tax.count(tax.tax);
  return taxes;
}

function priceByStack(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  stack: LevyStack,
  rounding: Rounding,
): ComponentTax[] {
  if (mode === "exclusive" && rounding.level === "line") return onRoundedBases(amount, components, stack);
  const { d, base, tax } = mode === "exclusive" ? stack.onNet : stack.onGross;
  return components.map((rated, index) => {
    if (rated.component.charged === "declared-only")
      return nothingCharged(rated, amount * at(base, index), d);
    const exact = amount * at(tax, index);
    return new ComponentTax(rated, amount * at(base, index), exact, d, halfUp(exact, d));
  });
}

/** Tax-exclusive by line: a later base includes the earlier tax as it was rounded. */
function onRoundedBases(
  net: number,
  components: readonly RatedComponent[],
  stack: LevyStack,
): ComponentTax[] {
  let base = net;
  return components.map((rated, index) => {
    const { n, d } = stack.own[index] ?? { n: 0, d: 1 };
    if (rated.component.charged === "declared-only") return nothingCharged(rated, base * d, d);
    const priced = new ComponentTax(rated, sharedBase(base, d, rated), base * n, d, halfUp(base * n, d));
    if (rated.component.partOfLaterBases) base += priced.calculated;
    return priced;
  });
}

function sharedBase(base: number, d: number, { component }: RatedComponent): number | Exact {
  if (component.base?.share === undefined) return base * d;
  return multiply(exactFromInteger(base), percentage(component.base.share));
}

function nothingCharged(rated: RatedComponent, base: number, d: number): ComponentTax {
  return new ComponentTax(rated, base, 0, d, 0);
}

/** `n / d` rounded half away from zero; exact because both stay below 2^51. */
function halfUp(n: number, d: number): number {
  return n < 0 ? -Math.floor((d - 2 * n) / (2 * d)) : Math.floor((2 * n + d) / (2 * d));
}

function roundCombined(taxes: readonly ComponentTax[], rounding: Rounding, details: LineDetails): void {
  const charged = taxes.filter((one) => one.component.charged === "charged");
  roundTogether(
    charged.map((one) => one.exact),
    rounding,
  ).forEach((rounded, index) => {
    const figure = charged[index];
    if (!figure) return;
    figure.calculated = rounded;
    figure.count(details.typed?.[figure.component.levy] ?? rounded);
  });
}

/** Net and gross of a priced line in minor units; the parts always add up to the figure that was typed. */
export function netAndGross(
  amount: number,
  mode: PriceMode,
  taxes: readonly ComponentTax[],
): { net: number; gross: number } {
  let charged = 0;
  for (const tax of taxes) if (tax.component.charged === "charged") charged += tax.tax;
  return mode === "exclusive"
    ? { net: amount, gross: amount + charged }
    : { net: amount - charged, gross: amount };
}
