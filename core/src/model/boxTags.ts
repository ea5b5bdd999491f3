import { FiscalError } from "../errors.ts";
import { divide, exactFromDecimal, exactFromInteger, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

/**
 * What of a fact lands in a box: `n` net, `t` tax, `r` recoverable tax, `u` the tax that is not recoverable,
 * `g` net and tax together, `b` the base the rate was applied to.
 */
export type Measure = "n" | "t" | "r" | "u" | "g" | "b";

export interface BoxTag {
  box: string;
  sign: 1 | -1;
  measure: Measure;
  /** The measure is multiplied by this before it lands, 1 as a rule. */
  times: Exact;
}

/** The figures of a fact, or of a sum of facts, that measures name; minor units. */
export interface Measures {
  net: number;
  tax: number;
  recoverable: number;
  base: number;
}

const TAG = /^(\S+) ([+-])(\d+(?:\.\d+)?(?:\/\d+)?)?([ntrugb])$/;
const ONE: Exact = { n: 1n, d: 1n };
const parsed = new Map<string, readonly BoxTag[]>();

/**
 * Reads the notation of the packs: `"1 +t, 6 +n"` adds the tax to box 1 and the net to box 6; `"G11 +11t"` adds
 * eleven times the tax, `"5 +23/3t"` twenty-three thirds of it. The empty string lands nowhere.
 * @throws FiscalError `tax/bad-box-tag`
 */
export function boxTags(text: string): readonly BoxTag[] {
  const known = parsed.get(text);
  if (known) return known;
  const tags = text === "" ? [] : text.split(",").map((part) => boxTag(part.trim()));
  parsed.set(text, tags);
  return tags;
}

function boxTag(text: string): BoxTag {
  const [, box = "", sign, times, measure] = TAG.exec(text) ?? [];
  if (measure === undefined) {
    throw new FiscalError("tax/bad-box-tag", `"${text}" does not say where to land. Write it like "6 +n".`);
  }
  return { box, sign: sign === "-" ? -1 : 1, measure: measure as Measure, times: factor(times) };
}

function factor(text: string | undefined): Exact {
  if (text === undefined) return ONE;
  const [whole = "1", part] = text.split("/");
  const value = exactFromDecimal(whole);
  return part === undefined ? value : divide(value, exactFromDecimal(part));
}

/**
 * What a fact, or a sum of facts, adds to the box of a tag, in minor units. Multiplied measures are rounded half
 * up here, once for the sum they are given for.
 */
export function landed(fact: Measures, tag: BoxTag): number {
  const amount = tag.sign * measured(fact, tag.measure) || 0;
  if (tag.times === ONE) return amount;
  return roundExact(multiply(exactFromInteger(amount), tag.times));
}

/** The amount of a fact, or of a sum of facts, that a measure names, in minor units. */
export function measured(fact: Measures, measure: Measure): number {
  switch (measure) {
    case "n":
      return fact.net;
    case "t":
      return fact.tax;
    case "r":
      return fact.recoverable;
    case "u":
      return fact.tax - fact.recoverable;
    case "g":
      return fact.net + fact.tax;
    case "b":
      return fact.base;
  }
}
