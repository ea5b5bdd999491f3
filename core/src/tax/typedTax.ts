import { FiscalError, withinField } from "../errors.ts";
import { allocate } from "../money/allocate.ts";
import { parseAmount } from "../money/amount.ts";
import type { Exact } from "../money/exact.ts";
import type { ComponentTax } from "./componentTax.ts";
import type { LineInput } from "./documentInput.ts";
import type { TaxCode } from "./taxCode.ts";

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

/** The tax of a whole document from the paper, spread over the lines that bear it by calculated tax. */
export function spreadTypedTax(
  lines: readonly { taxes: readonly ComponentTax[] }[],
  typed: Record<string, string>,
  digits: number,
): void {
  for (const [levy, text] of Object.entries(typed)) {
    const field = `typedTax.${levy}`;
    const total = withinField(field, () => parseAmount(text, digits));
    const bearing = lines
      .flatMap((line) => line.taxes)
      .filter((tax) => tax.component.levy === levy && tax.component.charged === "charged" && !tax.typed);
    const taxed = bearing.filter((tax) => tax.rate !== null && tax.rate !== "0");
    const takers = taxed.length > 0 ? taxed : bearing;
    if (takers.length === 0) {
      throw new FiscalError("tax/typed-tax-without-levy", `No line of this document bears ${levy}.`, field);
    }
    allocate(
      total,
      takers.map((tax) => tax.calculated),
    ).forEach((share, index) => {
      const tax = takers[index];
      if (!tax) return;
      tax.count(share);
      tax.typed = true;
    });
  }
}

/** Exact amounts as whole numbers over one denominator, as weights for allocating. */
export function onOneDenominator(exacts: readonly Exact[]): bigint[] {
  const common = exacts.reduce(
    (product, exact) => (product % exact.d === 0n ? product : product * exact.d),
    1n,
  );
  return exacts.map((exact) => (exact.n * common) / exact.d);
}
