import type { Exact } from "../money/exact.ts";
import type { Circumstances } from "./circumstances.ts";
import type { PriceMode } from "./document.ts";
import type { Rounding } from "./rounding.ts";
import type { Component, Direction, TaxCode } from "./taxCode.ts";

/**
 * The tax of one component on one line, in minor units.
 * - `base`: what the rate was applied to; `exact`: the tax before rounding; `calculated`: after it.
 * - `tax`: what counts, the typed figure where there is one.
 * - `figures`: what the rate was applied with beside the base, in major units: quantity, inputs of a formula.
 * - `typed`: whether the figure comes from the paper; `shared`: it is this component's share of a printed total.
 * - `recoverable`: the part of `tax` that is deducted on a purchase, rounded half up.
 * - `share`: the percentage the line itself allows, where it says one. `cap`: the most the law lets be deducted.
 */
export interface LineTax {
  readonly component: Component;
  readonly rate: string | null;
  readonly base: Exact;
  readonly exact: Exact;
  readonly figures: Readonly<Record<string, string>>;
  calculated: number;
  tax: number;
  typed: boolean;
  shared: boolean;
  recoverable: number;
  share: string | null;
  cap: CreditCap | null;
}

/**
 * The most that is deducted on a line: the tax at `rate` on a price up to `limit` (major units, net or gross) for each of
 * its `items`. `most` is the tax, minor units.
 */
export interface CreditCap {
  limit: string;
  items: string;
  of: "net" | "gross";
  rate: string;
  most: number;
}

/** Something that must be known before a code can be found, or, of a place, before its boxes can. */
export interface CodeQuestion {
  about: "supply" | "taxClass" | "region" | "standing" | "place";
  /** The question, for the line it is asked on. */
  text: string;
}

/** What supply rules can hang on that nobody has said yet. */
export type RuleQuestion = Exclude<CodeQuestion["about"], "place">;

/** Where a code comes from, in the order in which candidates are asked. */
export const CODE_SOURCES = ["typed", "rule", "contact", "item", "account", "place", "business"] as const;
export type CodeSource = (typeof CODE_SOURCES)[number];

/** The code of a line with the sentence why; without a code what must be said first, where that would help. */
export interface CodeChoice {
  code: TaxCode | undefined;
  source: CodeSource | undefined;
  reason: string | undefined;
  asks: CodeQuestion | undefined;
  circumstances: Circumstances;
}

/**
 * A line in whole minor units, unsigned by document kind: a credit note's lines are positive here. `sign` and
 * `direction` say how it counts; on a journal the code and the side of the line decide them.
 */
export interface PricedLine<Tax extends LineTax = LineTax> extends CodeChoice {
  /** Position in the document, from 1. */
  no: number;
  direction: Direction | null;
  sign: 1 | -1;
  amount: number;
  /** Whether `amount` has tax in it. */
  mode: PriceMode;
  net: number;
  gross: number;
  taxes: Tax[];
  rounding: Rounding;
}

/** One row a levy and rate. `net` is the net of the lines that bear it; `per` says what the rate is a rate of. */
export interface LevyTotal {
  levy: string;
  rate: string | null;
  per: "percent" | "unit" | "document" | "formula" | "none";
  net: number;
  tax: number;
  charged: Component["charged"];
}

export interface PricedDocument<Tax extends LineTax = LineTax> {
  lines: PricedLine<Tax>[];
  net: number;
  /** Tax charged on the document; self-assessed tax is not part of it. */
  tax: number;
  gross: number;
  /** In order of appearance. */
  levies: LevyTotal[];
}
