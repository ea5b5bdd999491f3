import { compare, exactFromDecimal, exactFromInteger, multiply, ZERO } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { percentage } from "./levyStack.ts";
import type { RatedComponent } from "./levyStack.ts";
import { roundTax } from "./rounding.ts";
import type { Rounding } from "../model/rounding.ts";
import type { CreditCap, LineTax } from "../model/pricedDocument.ts";
import type { Component } from "../model/taxCode.ts";

/** What pricing a line may need beside its amount. Quantity, unit price and inputs in major units, as typed. */
export interface LineDetails {
  /** Tax from the paper by levy, whole minor units. */
  typed?: Readonly<Record<string, number>>;
  quantity?: string;
  unitPrice?: string;
  inputs?: Readonly<Record<string, string>>;
  /** Decimals of the currency, 2 where not said. */
  digits?: number;
  /** Whether amounts per document are charged on this line: on the first that bears them. */
  carriesDocumentAmounts?: boolean;
}

const NO_FIGURES: Readonly<Record<string, string>> = {};

/** A LineTax as pricing makes it. Base and exact tax are kept as numerators over one denominator and made exact when asked for. */
export class ComponentTax implements RatedComponent, LineTax {
  readonly component: Component;
  readonly rate: string | null;
  calculated: number;
  tax: number;
  typed = false;
  shared = false;
  recoverable = 0;
  share: string | null = null;
  cap: CreditCap | null = null;
  /** What its rate was applied with beside the base, in major units: quantity, inputs of a formula. */
  readonly figures: Readonly<Record<string, string>>;
  readonly #base: number | Exact;
  readonly #exact: number | Exact;
  readonly #d: number;

  constructor(
    rated: RatedComponent,
    base: number | Exact,
    exact: number | Exact,
    d: number,
    calculated: number,
    figures: Readonly<Record<string, string>> = NO_FIGURES,
  ) {
    this.component = rated.component;
    this.rate = rated.rate;
    this.#base = base;
    this.#exact = exact;
    this.#d = d;
    this.calculated = calculated;
    this.figures = figures;
    this.tax = calculated;
  }

  /** Lets a figure from the paper count as the tax of the line. */
  type(amount: number, shared: boolean): void {
    this.typed = true;
    this.shared = shared;
    this.count(amount);
  }

  /** Lets `amount` count as the tax of the line. */
  count(amount: number): void {
    this.tax = amount;
    this.recoverable = recoverablePart(amount, this);
  }

  get base(): Exact {
    return typeof this.#base === "number" ? { n: BigInt(this.#base), d: BigInt(this.#d) } : this.#base;
  }

  get exact(): Exact {
    return typeof this.#exact === "number" ? { n: BigInt(this.#exact), d: BigInt(this.#d) } : this.#exact;
  }
}

/** The part of a purchase's tax that is deducted, whole minor units, rounded half up. */
export function recoverablePart(
  tax: number,
  of: Pick<ComponentTax, "component" | "share"> & Partial<Pick<ComponentTax, "cap">>,
): number {
  const share = lesser(of.component.recoverable, of.share);
  const deductible = of.cap ? Math.sign(tax) * Math.min(Math.abs(tax), Math.abs(of.cap.most)) : tax;
  if (share === "100") return deductible;
  if (share === "0") return 0;
  return roundExact(multiply(exactFromInteger(deductible), percentage(share)));
}

function lesser(code: string, own: string | null): string {
  return own === null || compare(exactFromDecimal(code), exactFromDecimal(own)) < 0 ? code : own;
}

/** The calculated tax of an exact amount: nothing for a tax that is only declared. */
export function calculatedTax(
  exact: Exact,
  component: Component,
  rounding: Rounding,
): { exact: Exact; rounded: number } {
  if (component.charged === "declared-only" || exact.n === 0n) return { exact: ZERO, rounded: 0 };
  return { exact, rounded: roundTax(exact, rounding) };
}
