import { multiply, exactFromDecimal } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { exchanged } from "../money/exchange.ts";
import type { Exchange } from "../money/exchange.ts";
import { levyTotals } from "./priceDocument.ts";
import { ComponentTax } from "./componentTax.ts";
import type { LineTax, PricedDocument, PricedLine } from "../model/pricedDocument.ts";

/**
 * A document priced in its own currency, in the currency of the books: the net and each tax of each line are
 * exchanged and rounded by themselves, gross and totals are their sums, so that net + tax = gross holds again.
 * @throws FiscalError as exchanged does
 */
export function inBaseCurrency(priced: PricedDocument, exchange: Exchange): PricedDocument {
  const lines = priced.lines.map((line) => lineInBase(line, exchange));
  const sum = (of: (line: PricedLine) => number) => lines.reduce((total, line) => total + of(line), 0);
  const net = sum((line) => line.net);
  const gross = sum((line) => line.gross);
  return { lines, net, tax: gross - net, gross, levies: levyTotals(lines) };
}

function lineInBase(line: PricedLine, exchange: Exchange): PricedLine {
  const taxes = line.taxes.map((tax) => taxInBase(tax, exchange));
  const net = exchanged(line.net, exchange);
  const charged = taxes.reduce(
    (sum, { component, tax }) => sum + (component.charged === "charged" ? tax : 0),
    0,
  );
  return { ...line, amount: exchanged(line.amount, exchange), taxes, net, gross: net + charged };
}

function taxInBase(tax: LineTax, exchange: Exchange): ComponentTax {
  const copy = new ComponentTax(
    tax,
    scaled(tax.base, exchange),
    scaled(tax.exact, exchange),
    1,
    exchanged(tax.calculated, exchange),
    tax.figures,
  );
  copy.share = tax.share;
  copy.typed = tax.typed;
  copy.shared = tax.shared;
  copy.count(exchanged(tax.tax, exchange));
  return copy;
}

function scaled(exact: Exact, { rate, fromDigits, toDigits }: Exchange): Exact {
  const factor = multiply(exactFromDecimal(rate), {
    n: 10n ** BigInt(toDigits),
    d: 10n ** BigInt(fromDigits),
  });
  return multiply(exact, factor);
}
