import type { LineTax, PricedLine } from "../model/pricedDocument.ts";
import { beyondTolerance } from "./typedTolerance.ts";

/**
 * The levies of a line whose figures from the paper sum to what is calculated while the split between them does not:
 * the mark of levies charged in another order than the law's.
 * @returns undefined where the line bears one levy, nothing was typed, the sum is off too, or the split fits
 */
export function wrongSplit({ taxes }: Pick<PricedLine, "taxes">): LineTax[] | undefined {
  const charged = taxes.filter((tax) => tax.component.charged === "charged" && tax.rate !== null);
  if (charged.length < 2 || !charged.some((tax) => tax.typed && !tax.shared)) return undefined;
  const stacked = charged.some((tax, index) => index < charged.length - 1 && tax.component.partOfLaterBases);
  if (!stacked) return undefined;
  const sum = (of: (tax: LineTax) => number) => charged.reduce((total, tax) => total + of(tax), 0);
  if (
    beyondTolerance(
      sum((tax) => tax.tax),
      sum((tax) => tax.calculated),
    )
  )
    return undefined;
  return charged.some((tax) => beyondTolerance(tax.tax, tax.calculated)) ? charged : undefined;
}
