import { multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { exchanged } from "../money/exchange.ts";
import type { Exchange } from "../money/exchange.ts";
import { ComponentTax } from "./componentTax.ts";
import type { PricedDocument, PricedLine } from "./priceDocument.ts";

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
  const levies = priced.levies.map((row) => {
    const own = lines.flatMap((line) =>
      line.taxes
        .filter(
          ({ component, rate }) =>
            component.levy === row.levy &&
            rate === row.rate &&
            (component.charged === "charged") === row.charged,
        )
        .map((tax) => ({ net: line.net, tax: tax.tax })),
    );
    return {
      ...row,
      net: own.reduce((total, one) => total + one.net, 0),
      tax: own.reduce((total, one) => total + one.tax, 0),
    };
  });
  return { lines, net, tax: gross - net, gross, levies };
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

function taxInBase(tax: ComponentTax, exchange: Exchange): ComponentTax {
  const copy = new ComponentTax(
    tax,
    scaled(tax.base, exchange),
    scaled(tax.exact, exchange),
    1,
    exchanged(tax.calculated, exchange),
  );
  copy.ownShare = tax.ownShare;
  copy.typed = tax.typed;
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
