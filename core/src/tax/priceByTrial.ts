import { FiscalError } from "../errors.ts";
import { evaluateFormula } from "../formula/evaluateFormula.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import {
  add,
  compare,
  divide,
  exactFromDecimal,
  exactFromInteger,
  exactToText,
  multiply,
  subtract,
  ZERO,
} from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { calculatedTax, ComponentTax } from "./componentTax.ts";
import type { LineDetails } from "./componentTax.ts";
import { attributeName } from "../model/lineAttributes.ts";
import type { PriceMode } from "../model/document.ts";
import { percentage, share } from "./levyStack.ts";
import type { RatedComponent } from "./levyStack.ts";
import type { Rounding } from "../model/rounding.ts";
import { solveFor } from "./solveFor.ts";
import type { BaseSpec } from "../model/taxCode.ts";

/** What the components are tried on: net and gross in exact minor units. */
interface Trial {
  net: Exact;
  gross: Exact;
}

/**
 * Prices a line whose components are more than percentages on the net, or whose tax was typed: amounts per unit,
 * caps, formulas, shares of the gross. Where the price that is not typed decides the tax, it is solved for.
 */
export function priceByTrial(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  rounding: Rounding,
  details: LineDetails,
): ComponentTax[] {
  if (amount < 0) return mirrored(amount, mode, components, rounding, details);
  const trial = pricesOf(amount, mode, components, details);
  const rounds = mode === "exclusive" && rounding.level === "line";
  let prior = ZERO;
  let onTop = ZERO;
  return components.map((rated) => {
    const { base, tax } = taxOn(rated, trial, onTop, prior, details);
    const { exact, rounded } = calculatedTax(tax, rated.component, rounding);
    const figures = figuresOf(rated, trial, prior, details);
    const priced = new ComponentTax(rated, base, exact, 1, rounded, figures);
    const paper =
      rated.component.charged === "declared-only" ? undefined : details.typed?.[rated.component.levy];
    if (paper !== undefined) priced.type(paper, false);
    const carried = rounds ? exactFromInteger(priced.tax) : tax;
    prior = add(prior, carried);
    if (rated.component.partOfLaterBases) onTop = add(onTop, carried);
    return priced;
  });
}

/** A negative line is the mirror image of the same line with a positive amount. */
function mirrored(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  rounding: Rounding,
  details: LineDetails,
): ComponentTax[] {
  const typed = Object.fromEntries(Object.entries(details.typed ?? {}).map(([levy, tax]) => [levy, -tax]));
  const quantity = details.quantity?.replace(/^-/, "");
  const image = { ...details, typed, ...(quantity === undefined ? {} : { quantity }) };
  return priceByTrial(-amount, mode, components, rounding, image).map((tax) => {
    const { calculated, figures } = tax;
    const back = new ComponentTax(tax, opposite(tax.base), opposite(tax.exact), 1, -calculated || 0, figures);
    back.tax = -tax.tax || 0;
    back.typed = tax.typed;
    return back;
  });
}

function opposite(value: Exact): Exact {
  return { n: -value.n, d: value.d };
}

function pricesOf(
  amount: number,
  mode: PriceMode,
  components: readonly RatedComponent[],
  details: LineDetails,
): Trial {
  const typed = exactFromInteger(amount);
  const charged = (trial: Trial) => chargedTax(components, trial, details);
  if (mode === "inclusive") {
    const net = solveFor((x) => add(x, charged({ net: x, gross: typed })), typed);
    return { net, gross: typed };
  }
  if (!components.some(readsGross)) return { net: typed, gross: typed };
  const gross = solveFor((x) => subtract(x, charged({ net: typed, gross: x })), typed);
  return { net: typed, gross };
}

function readsGross({ component: { base, rate } }: RatedComponent): boolean {
  if (base?.of === "gross") return true;
  return rate.kind === "formula" && parseFormula(rate.formula).names.includes("gross");
}

function chargedTax(components: readonly RatedComponent[], trial: Trial, details: LineDetails): Exact {
  let [sum, prior, onTop] = [ZERO, ZERO, ZERO];
  for (const rated of components) {
    const { tax } = taxOn(rated, trial, onTop, prior, details);
    prior = add(prior, tax);
    if (rated.component.partOfLaterBases) onTop = add(onTop, tax);
    if (rated.component.charged === "charged") sum = add(sum, tax);
  }
  return sum;
}

/** Base and exact tax of one component, in minor units. */
function taxOn(
  rated: RatedComponent,
  trial: Trial,
  onTop: Exact,
  prior: Exact,
  details: LineDetails,
): { base: Exact; tax: Exact } {
  const { component, rate } = rated;
  const charged = component.base?.of === "gross" ? trial.gross : add(trial.net, onTop);
  const base = multiply(withinBounds(charged, component.base, details), share(component));
  switch (component.rate.kind) {
    case "percent":
      return { base, tax: multiply(base, percentage(rate)) };
    case "per-unit":
      return { base, tax: toMinor(multiply(exactFromDecimal(rate ?? "0"), quantityOf(details)), details) };
    case "per-document":
      return {
        base,
        tax: details.carriesDocumentAmounts ? toMinor(exactFromDecimal(rate ?? "0"), details) : ZERO,
      };
    case "formula":
      return fromFormula(rated, trial, prior, details);
    default:
      return { base, tax: ZERO };
  }
}

/** Of each unit's price only the part between two amounts. */
function withinBounds(amount: Exact, spec: BaseSpec | undefined, details: LineDetails): Exact {
  if (spec?.over === undefined && spec?.upTo === undefined) return amount;
  const quantity = quantityOf(details);
  if (quantity.n <= 0n) return amount;
  let unit = divide(amount, quantity);
  if (spec.upTo !== undefined) unit = smaller(unit, toMinor(exactFromDecimal(spec.upTo), details));
  if (spec.over !== undefined) {
    const above = subtract(unit, toMinor(exactFromDecimal(spec.over), details));
    unit = above.n > 0n ? above : ZERO;
  }
  return multiply(unit, quantity);
}

function smaller(a: Exact, b: Exact): Exact {
  return compare(a, b) <= 0 ? a : b;
}

function fromFormula(
  { component, rates }: RatedComponent,
  trial: Trial,
  prior: Exact,
  details: LineDetails,
): { base: Exact; tax: Exact } {
  if (component.rate.kind !== "formula") return { base: ZERO, tax: ZERO };
  const name = (one: string): Exact | undefined => {
    switch (one) {
      case "net":
        return toMajor(trial.net, details);
      case "gross":
        return toMajor(trial.gross, details);
      case "prior":
        return toMajor(prior, details);
      case "quantity":
        return quantityOf(details);
      case "unitPrice":
        return exactFromDecimal(details.unitPrice ?? unknown("unitPrice"));
      default:
        return exactFromDecimal(details.inputs?.[one] ?? unknown(one));
    }
  };
  const rate = (schedule: string) => {
    const value = rates?.[schedule];
    return value === undefined ? undefined : exactFromDecimal(value);
  };
  const value = (text: string) => toMinor(evaluateFormula(parseFormula(text), { name, rate }), details);
  return {
    base: component.rate.base === undefined ? trial.net : value(component.rate.base),
    tax: value(component.rate.formula),
  };
}

function unknown(what: string): never {
  throw new FiscalError(
    "tax/missing-input",
    `This code needs the ${attributeName(what)} on the line. Fill it in.`,
    what === "unitPrice" ? what : `attributes.${what}`,
  );
}

/** What the arithmetic of a component is told with. */
function figuresOf(
  { component: { rate }, rates = {} }: RatedComponent,
  trial: Trial,
  prior: Exact,
  details: LineDetails,
): Record<string, string> {
  const quantity = exactToText(quantityOf(details), 6);
  if (rate.kind === "per-unit") return { quantity };
  if (rate.kind !== "formula") return {};
  return {
    ...details.inputs,
    ...rates,
    net: exactToText(toMajor(trial.net, details), 6),
    gross: exactToText(toMajor(trial.gross, details), 6),
    prior: exactToText(toMajor(prior, details), 6),
    quantity,
    ...(details.unitPrice ? { unitPrice: details.unitPrice } : {}),
  };
}

function quantityOf({ quantity }: LineDetails): Exact {
  return quantity === undefined || quantity === "" ? { n: 1n, d: 1n } : exactFromDecimal(quantity);
}

function toMinor(major: Exact, { digits = 2 }: LineDetails): Exact {
  return { n: major.n * 10n ** BigInt(digits), d: major.d };
}

function toMajor(minor: Exact, { digits = 2 }: LineDetails): Exact {
  return { n: minor.n, d: minor.d * 10n ** BigInt(digits) };
}
