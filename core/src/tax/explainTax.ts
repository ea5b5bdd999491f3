import { displayAmount } from "../money/amount.ts";
import { exactToText } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import type { PriceMode } from "./documentInput.ts";
import type { ComponentTax } from "./priceLine.ts";
import { effectiveRate } from "./priceLine.ts";
import { roundingInWords } from "./rounding.ts";
import type { Rounding } from "./rounding.ts";

/**
 * The arithmetic of one component on one line, written out as short lines of text, last the figure that counts.
 * @param amount the line's price in minor units in the mode of the document
 * @param taxes all components of the line, in order
 * @example ["576.75 incl. ÷ 1.2 = 480.625", "480.625 × 20 % = 96.125 → 96.13", "half up, by line"]
 */
export function explainTax(
  amount: number,
  mode: PriceMode,
  taxes: readonly ComponentTax[],
  index: number,
  rounding: Rounding,
  digits: number,
): string[] {
  const tax = taxes[index];
  if (!tax) return [];
  return [
    ...calculation(amount, mode, taxes, tax, rounding, digits),
    ...typedFigure(tax, digits),
    ...share(tax, digits),
  ];
}

function calculation(
  amount: number,
  mode: PriceMode,
  taxes: readonly ComponentTax[],
  tax: ComponentTax,
  rounding: Rounding,
  digits: number,
): string[] {
  if (tax.component.rate.kind === "none") return ["no tax on this supply"];
  if (tax.component.rate.kind === "typed") return ["the tax is the figure on the document"];
  if (tax.component.charged === "declared-only") {
    return [`${tax.rate} % is shown, the customer accounts for it: nothing charged`];
  }
  const lines: string[] = [];
  const factor = effectiveRate(taxes);
  if (mode === "inclusive" && factor.n !== 0n) {
    const divisor = exactToText({ n: factor.n + factor.d, d: factor.d }, 6);
    const net = { n: BigInt(amount) * factor.d, d: factor.n + factor.d };
    lines.push(`${displayAmount(amount, digits)} incl. ÷ ${divisor} = ${major(net, digits)}`);
  }
  lines.push(`${major(tax.base, digits)} × ${tax.rate} % = ${major(tax.exact, digits)}${arrow(tax, digits)}`);
  if (!isWhole(tax.exact)) lines.push(roundingInWords(rounding));
  return lines;
}

function arrow(tax: ComponentTax, digits: number): string {
  return isWhole(tax.exact) ? "" : ` → ${displayAmount(tax.calculated, digits)}`;
}

function typedFigure(tax: ComponentTax, digits: number): string[] {
  if (!tax.typed) return [];
  const over = tax.tax - tax.calculated;
  const kept =
    over === 0
      ? "kept, the same as calculated"
      : `kept, ${displayAmount(Math.abs(over), digits)} ${over > 0 ? "over" : "under"}`;
  return [`typed from the paper: ${displayAmount(tax.tax, digits)}`, kept];
}

function share(tax: ComponentTax, digits: number): string[] {
  if (tax.component.recoverable === "100") return [];
  const deducted = displayAmount(tax.recoverable, digits);
  return [`${tax.component.recoverable} % is deducted on a purchase: ${deducted}; the rest is cost`];
}

function isWhole(value: Exact): boolean {
  return value.n % value.d === 0n;
}

/** Exact minor units in major units, at most four decimals beyond the currency's. */
function major(minor: Exact, digits: number): string {
  const text = exactToText({ n: minor.n, d: minor.d * 10n ** BigInt(digits) }, digits + 4);
  const [whole = "", fraction = ""] = text.replace("-", "−").split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  return digits === 0 && fraction === "" ? grouped : `${grouped}.${fraction.padEnd(digits, "0")}`;
}
