import { displayAmount, displayDecimal } from "../money/amount.ts";
import { exactToText } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import type { PriceMode } from "../model/document.ts";
import type { CreditCap, LineTax, PricedLine } from "../model/pricedDocument.ts";
import { effectiveRate } from "./levyStack.ts";
import { roundingInWords } from "./rounding.ts";
import type { Rounding } from "../model/rounding.ts";

/** What the arithmetic of a line hangs on; `direction` is undefined where it is neither sold nor bought. */
export interface ExplainedLine extends Pick<PricedLine, "amount" | "mode" | "taxes" | "rounding"> {
  direction?: PricedLine["direction"];
}

/**
 * The arithmetic of one component on one line, written out as short lines of text, last the figure that counts.
 * @param index of the component among the taxes of the line
 * @example ["576.75 incl. ÷ 1.2 = 480.625", "480.625 × 20 % = 96.125 → 96.13", "half up, by line"]
 */
export function explainTax(
  { amount, mode, taxes, rounding, direction }: ExplainedLine,
  index: number,
  digits: number,
): string[] {
  const tax = taxes[index];
  if (!tax) return [];
  return [
    ...calculation(amount, mode, taxes, tax, rounding, digits),
    ...typedFigure(tax, digits),
    ...(direction === "sale" ? [] : share(tax, digits)),
  ];
}

function calculation(
  amount: number,
  mode: PriceMode,
  taxes: readonly LineTax[],
  tax: LineTax,
  rounding: Rounding,
  digits: number,
): string[] {
  const { rate, charged } = tax.component;
  if (rate.kind === "none") return ["no tax on this supply"];
  if (rate.kind === "typed") return ["the tax is the figure on the document"];
  if (charged === "declared-only") {
    return [`${tax.rate} % is shown, the customer accounts for it: nothing charged`];
  }
  return [
    ...netOutOfGross(amount, mode, taxes, digits),
    `${howFound(tax, digits)} = ${major(tax.exact, digits)}${arrow(tax, digits)}`,
    ...(isWhole(tax.exact) ? [] : [roundingInWords(rounding)]),
  ];
}

/** Only percentages on the net can be taken out of a price by one division; other prices are solved for. */
function netOutOfGross(amount: number, mode: PriceMode, taxes: readonly LineTax[], digits: number): string[] {
  if (mode !== "inclusive") return [];
  const plain = taxes.every(
    ({ component: { rate, base } }) =>
      ["percent", "none", "typed"].includes(rate.kind) &&
      base?.of !== "gross" &&
      base?.over === undefined &&
      base?.upTo === undefined,
  );
  if (!plain)
    return [`${displayAmount(amount, digits)} incl.: the price without tax is the one that gives it`];
  const factor = effectiveRate(taxes);
  if (factor.n === 0n) return [];
  const divisor = exactToText({ n: factor.n + factor.d, d: factor.d }, 6);
  const net = { n: BigInt(amount) * factor.d, d: factor.n + factor.d };
  return [`${displayAmount(amount, digits)} incl. ÷ ${divisor} = ${major(net, digits)}`];
}

function howFound(tax: LineTax, digits: number): string {
  const { rate, base } = tax.component;
  switch (rate.kind) {
    case "per-unit":
      return `${tax.figures["quantity"] ?? "1"} × ${tax.rate} a unit`;
    case "per-document":
      return `${tax.rate} a document`;
    case "formula":
      return inFigures(rate.formula, tax.figures);
    default: {
      const part =
        base?.share === undefined
          ? ""
          : ` (${base.share} % of ${base.of === "gross" ? "the price with tax" : "the price"})`;
      const cap = [
        ...(base?.over === undefined ? [] : [`over ${base.over}`]),
        ...(base?.upTo === undefined ? [] : [`up to ${base.upTo}`]),
      ];
      const bounds = cap.length === 0 ? "" : ` (each unit ${cap.join(", ")})`;
      return `${major(tax.base, digits)}${part}${bounds} × ${tax.rate} %`;
    }
  }
}

/** A formula with its figures in the place of its names: `max(0, 1200 − 700) × 20 ÷ (100 + 20)`. */
function inFigures(formula: string, figures: Readonly<Record<string, string>>): string {
  return formula
    .replace(/\{([^}]+)\}/g, (name, schedule: string) => figures[schedule] ?? name)
    .replace(/[A-Za-z_][\w.]*(?!\w*\()/g, (name) => figures[name] ?? name)
    .replaceAll("*", "×")
    .replaceAll("/", "÷")
    .replaceAll(/ - /g, " − ");
}

function arrow(tax: LineTax, digits: number): string {
  return isWhole(tax.exact) ? "" : ` → ${displayAmount(tax.calculated, digits)}`;
}

function typedFigure(tax: LineTax, digits: number): string[] {
  if (!tax.typed || tax.component.rate.kind === "typed") return [];
  const over = tax.tax - tax.calculated;
  const kept =
    over === 0
      ? "kept, the same as calculated"
      : `kept, ${displayAmount(Math.abs(over), digits)} ${over > 0 ? "over" : "under"}`;
  const whence = tax.shared ? "its share of the tax on the paper" : "typed from the paper";
  return [`${whence}: ${displayAmount(tax.tax, digits)}`, kept];
}

function share(tax: LineTax, digits: number): string[] {
  const percent = tax.share ?? tax.component.recoverable;
  if (tax.cap && Math.abs(tax.tax) > Math.abs(tax.cap.most)) return capped(tax, tax.cap, percent, digits);
  if (percent === "100") return [];
  const deducted = displayAmount(tax.recoverable, digits);
  return [`${percent} % is deducted on a purchase: ${deducted}; the rest is cost`];
}

/** What is deducted where the law caps the price of an item. */
function capped(tax: LineTax, cap: CreditCap, percent: string, digits: number): string[] {
  const price = displayAmount(Number(cap.limit) * 10 ** digits, digits);
  const items = cap.items === "1" ? "" : ` × ${cap.items}`;
  const rate = cap.of === "gross" ? `${cap.rate} ÷ (100 + ${cap.rate})` : `${cap.rate} %`;
  const most = displayAmount(cap.most, digits);
  const part = percent === "100" ? "" : `, ${percent} % of it`;
  return [
    `deducted on a price of at most ${price}${cap.of === "gross" ? " with tax" : ""} each: ${price}${items} × ${rate} is ${most}${part}`,
    `${displayAmount(tax.recoverable, digits)} is deducted; the rest is cost`,
  ];
}

function isWhole(value: Exact): boolean {
  return value.n % value.d === 0n;
}

/** Exact minor units in major units, at most four decimals beyond the currency's. */
function major(minor: Exact, digits: number): string {
  return displayDecimal(exactToText({ n: minor.n, d: minor.d * 10n ** BigInt(digits) }, digits + 4), digits);
}
