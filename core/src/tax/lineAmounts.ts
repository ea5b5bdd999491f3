import { at } from "../at.ts";
import { FiscalError, withinField } from "../errors.ts";
import { allocate } from "../money/allocate.ts";
import { formatAmount, parseAmount } from "../money/amount.ts";
import { exactFromDecimal, multiply } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import type { Discount, DocumentInput, LineInput } from "../model/document.ts";

/**
 * Each line's price in minor units after line and document discounts, each in its own mode (tax-exclusive
 * or tax-inclusive). A document discount is spread over the lines by these prices, largest remainder first.
 * @param digits decimals of the currency
 * @throws FiscalError with the path of the line: `tax/no-amount`, `tax/amount-mismatch`, `tax/bad-discount`,
 *   and what reading numbers throws
 */
export function lineAmounts(document: DocumentInput, digits: number): number[] {
  const amounts = document.lines.map((line, index) =>
    withinField(`lines[${index}]`, () => discounted(lineAmount(line, digits), line.discount, digits)),
  );
  if (!document.discount) return amounts;
  const total = amounts.reduce((a, b) => a + b, 0);
  const off = withinField("discount", () => discountOn(total, document.discount ?? {}, digits));
  const shares = allocate(off, amounts);
  return amounts.map((amount, index) => amount - at(shares, index));
}

function lineAmount(line: LineInput, digits: number): number {
  const product = quantityTimesPrice(line, digits);
  if (line.amount === undefined || line.amount === "") {
    if (product !== undefined) return product;
    throw new FiscalError("tax/no-amount", "Give an amount, or a quantity and a unit price.", "amount");
  }
  const amount = withinField("amount", () => parseAmount(line.amount ?? "", digits));
  if (product !== undefined && product !== amount) {
    throw new FiscalError(
      "tax/amount-mismatch",
      `${line.quantity} × ${line.unitPrice} is ${formatAmount(product, digits)}, not ${line.amount}. ` +
        `Correct one of the three, or leave the amount empty.`,
      "amount",
    );
  }
  return amount;
}

function quantityTimesPrice(line: LineInput, digits: number): number | undefined {
  if (!line.quantity || !line.unitPrice) return undefined;
  const quantity = withinField("quantity", () => atMostSixDecimals(line.quantity ?? ""));
  const price = withinField("unitPrice", () => atMostSixDecimals(line.unitPrice ?? ""));
  const product = multiply(quantity, price);
  return roundExact({ n: product.n * 10n ** BigInt(digits), d: product.d });
}

function atMostSixDecimals(text: string) {
  const value = exactFromDecimal(text);
  if (value.d > 1_000_000n) {
    throw new FiscalError("money/too-precise", `${text} has more than 6 decimals. Round it to 6.`);
  }
  return value;
}

function discounted(amount: number, discount: Discount | undefined, digits: number): number {
  if (!discount) return amount;
  return amount - withinField("discount", () => discountOn(amount, discount, digits));
}

function discountOn(amount: number, discount: Discount, digits: number): number {
  if (discount.amount !== undefined) return parseAmount(discount.amount, digits);
  const percent = exactFromDecimal(discount.percent ?? "0");
  if (percent.n < 0n || percent.n > 100n * percent.d) {
    throw new FiscalError("tax/bad-discount", "A discount is between 0 and 100 percent.", "percent");
  }
  return roundExact({ n: BigInt(amount) * percent.n, d: percent.d * 100n });
}
