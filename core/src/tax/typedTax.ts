import { FiscalError, withinField } from "../errors.ts";
import { allocate } from "../money/allocate.ts";
import { parseAmount } from "../money/amount.ts";
import { at } from "../at.ts";
import { compare, exactFromDecimal } from "../money/exact.ts";
import { onOneDenominator } from "../money/onOneDenominator.ts";
import { percentage } from "./levyStack.ts";
import type { ComponentTax } from "./componentTax.ts";
import type { LineInput } from "../model/document.ts";
import type { TaxCode } from "../model/taxCode.ts";

/**
 * The tax typed on a line, by levy, in whole minor units.
 * @throws FiscalError `tax/typed-tax-without-levy` where the code does not bear the levy
 */
export function typedTaxOf(
  line: LineInput,
  code: TaxCode | undefined,
  digits: number,
): Record<string, number> {
  const typed: Record<string, number> = {};
  for (const [levy, text] of Object.entries(line.typedTax ?? {})) {
    if (!code?.components.some((component) => component.levy === levy)) {
      throw new FiscalError(
        "tax/typed-tax-without-levy",
        `Tax is typed for ${levy}, but ${code ? `code ${code.code} does not bear it` : "the line has no code"}. ` +
          `Choose a code that bears ${levy}.`,
        `typedTax.${levy}`,
      );
    }
    typed[levy] = withinField(`typedTax.${levy}`, () => parseAmount(text, digits));
  }
  return typed;
}

/** A tax of a priced line, with what may be typed over it. */
interface Bearing {
  taxes: readonly ComponentTax[];
}

/**
 * Tax from the paper, spread over the lines that bear it by calculated tax: by levy, by levy and rate, or one figure
 * for everything charged. What a line has typed already stays.
 * @throws FiscalError `tax/typed-tax-without-levy` where nothing bears it
 */
export function spreadTypedTax(
  lines: readonly Bearing[],
  { typedTax = {}, typedTotal }: { typedTax?: Record<string, string>; typedTotal?: string },
  digits: number,
): void {
  for (const [name, text] of Object.entries(typedTax)) {
    const [levy = "", rate] = name.split(" ");
    const field = `typedTax.${name}`;
    const total = withinField(field, () => parseAmount(text, digits));
    const bearing = chargedTaxes(lines).filter(
      (tax) => tax.component.levy === levy && (rate === undefined || isRate(tax, rate)),
    );
    share(total, bearing, false, `No line of this document bears ${name}.`, field);
  }
  if (typedTotal === undefined || typedTotal.trim() === "") return;
  const total = withinField("typedTotal", () => parseAmount(typedTotal, digits));
  const all = lines.flatMap(({ taxes }) => taxes).filter((tax) => tax.component.charged === "charged");
  const told = all.reduce((sum, tax) => sum + (tax.typed ? tax.tax : 0), 0);
  const levies = new Set(all.map(({ component }) => component.levy));
  share(
    total - told,
    chargedTaxes(lines),
    levies.size > 1,
    "No line of this document bears a tax.",
    "typedTotal",
  );
}

/**
 * One figure of a line for all levies charged on it, shared by what is calculated for each, the rest by largest
 * remainder, ties to the earlier.
 */
export function shareTypedTotal(taxes: readonly ComponentTax[], text: string, digits: number): void {
  const total = withinField("typedTotal", () => parseAmount(text, digits));
  const onPaper = taxes.filter((tax) => tax.component.charged === "charged");
  const meant =
    onPaper.length > 0 ? onPaper : taxes.filter((tax) => tax.component.charged === "self-assessed");
  const told = meant.reduce((sum, tax) => sum + (tax.typed ? tax.tax : 0), 0);
  const open = meant.filter((tax) => !tax.typed);
  const words = "The line bears no tax. Choose a code that does.";
  share(total - told, open, meant.length > 1, words, "typedTotal");
}

function chargedTaxes(lines: readonly Bearing[]): ComponentTax[] {
  return lines
    .flatMap(({ taxes }) => taxes)
    .filter((tax) => tax.component.charged === "charged" && !tax.typed);
}

function isRate(tax: ComponentTax, rate: string): boolean {
  return compare(exactFromDecimal(tax.rate ?? "0"), exactFromDecimal(rate)) === 0;
}

function share(
  total: number,
  bearing: readonly ComponentTax[],
  shared: boolean,
  otherwise: string,
  field: string,
): void {
  const taxed = bearing.filter((tax) => tax.rate !== null && tax.rate !== "0");
  const takers = taxed.length > 0 ? taxed : bearing;
  if (takers.length === 0 && total !== 0)
    throw new FiscalError("tax/typed-tax-without-levy", otherwise, field);
  const calculated = takers.map((tax) => tax.calculated);
  const weights = calculated.some((one) => one !== 0)
    ? calculated
    : onOneDenominator(takers.map((tax) => percentage(tax.rate)));
  const shares = allocate(total, weights);
  takers.forEach((tax, index) => tax.type(at(shares, index), shared));
}
