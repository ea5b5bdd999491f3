import { textAt } from "../../at.ts";
import { FiscalError } from "../../errors.ts";
import { formatAmount } from "../../money/amount.ts";
import { divide, exactFromDecimal, exactFromInteger } from "../../money/exact.ts";
import { DOCUMENT_KINDS } from "../../model/documentKinds.ts";
import type { DocumentInput } from "../../model/document.ts";
import type { PricedDocument, PricedLine } from "../../model/pricedDocument.ts";
import type { Treatment } from "../../model/taxCode.ts";
import type { EInvoice, EInvoiceLine, EInvoiceParty, EInvoiceTax, TaxCategory } from "./eInvoice.ts";

const CATEGORY: Record<Treatment, TaxCategory> = {
  standard: "S",
  reduced: "S",
  zero: "Z",
  exempt: "E",
  "out-of-scope": "O",
  "reverse-charge": "AE",
  "reverse-charge-supplier": "AE",
  import: "O",
  export: "G",
  "intra-union": "K",
  margin: "E",
  blocked: "S",
  adjustment: "O",
};
const REASONS: Partial<Record<TaxCategory, string>> = {
  E: "Exempt",
  AE: "Reverse charge",
  K: "Intra-Community supply",
  G: "Export outside the union",
  O: "Not subject to VAT",
};

/**
 * A priced sales document as an e-invoice: prices without tax, discounts inside the lines, tax by category and rate as
 * it was charged. Lines that bear several levies cannot be told in this format.
 * @param printed the document priced in its own currency
 * @param digits decimals of that currency
 * @throws FiscalError `formats/einvoice-kind`, `formats/einvoice-levies`, `formats/einvoice-mixed`
 */
export function invoiceOf(
  document: DocumentInput & { number: string },
  printed: PricedDocument,
  parties: { seller: EInvoiceParty; buyer: EInvoiceParty },
  currency: string,
  digits: number,
): EInvoice {
  const { direction, sign, name } = DOCUMENT_KINDS[document.kind];
  if (direction !== "sale") {
    throw new FiscalError(
      "formats/einvoice-kind",
      `${name}s are not sent as e-invoices; sales documents are.`,
    );
  }
  const lines = printed.lines.map((line) => lineOf(line, document.lines[line.no - 1], digits));
  const taxes = breakdown(lines, printed.lines);
  if (taxes.some(({ category }) => category === "O") && taxes.length > 1) {
    throw new FiscalError(
      "formats/einvoice-mixed",
      "A line not subject to VAT cannot share an e-invoice with others (BR-O-11). Put it on a document of its own.",
    );
  }
  const exclusive = lines.reduce((sum, { net }) => sum + net, 0);
  const tax = taxes.reduce((sum, row) => sum + row.tax, 0);
  return {
    credit: sign < 0,
    number: document.number,
    date: document.date,
    taxPoint: document.taxPoint ?? null,
    due: document.due ?? null,
    currency,
    note: "",
    corrects: document.corrects ?? "",
    ...parties,
    lines,
    allowances: [],
    taxes,
    totals: {
      lines: exclusive,
      allowances: 0,
      charges: 0,
      exclusive,
      tax,
      inclusive: exclusive + tax,
      prepaid: 0,
      payable: exclusive + tax,
    },
  };
}

function lineOf(
  line: PricedLine,
  input: DocumentInput["lines"][number] | undefined,
  digits: number,
): EInvoiceLine {
  const margin = isMargin(line);
  const levies = margin ? [] : line.taxes.filter(({ component }) => component.charged === "charged");
  if (levies.length > 1) {
    throw new FiscalError(
      "formats/einvoice-levies",
      `Line ${line.no} bears ${levies.map(({ component }) => component.levy).join(" and ")}; an e-invoice tells one tax a line.`,
      `lines[${line.no - 1}]`,
    );
  }
  const { quantity, price, per } = pricingOf(shown(line), input?.quantity || "1", digits);
  return {
    id: String(line.no),
    name: input?.text || line.code?.name || "Supply",
    quantity,
    unit: "C62",
    price,
    per,
    net: shown(line),
    category: line.code ? CATEGORY[line.code.treatment] : "O",
    rate: levies[0]?.component.rate.kind === "percent" ? (levies[0].rate ?? "0") : "0",
  };
}

/** A sale on the margin scheme: the tax inside its price is never shown to the buyer. */
function isMargin({ code, direction }: PricedLine): boolean {
  return code?.treatment === "margin" && direction === "sale";
}

/** What the buyer sees as the price without tax. */
function shown(line: PricedLine): number {
  return isMargin(line) ? line.gross : line.net;
}

/**
 * The price without tax of one unit or, where that has more decimals than the currency, of the whole quantity. Prices
 * are never negative (BR-27); where the line takes off, the quantity is.
 */
function pricingOf(
  net: number,
  quantity: string,
  digits: number,
): Pick<EInvoiceLine, "quantity" | "price" | "per"> {
  const pieces = quantity.replace(/^[+-]/, "");
  const exact = exactFromDecimal(pieces);
  if (exact.n === 0n)
    return { quantity: net < 0 ? "-1" : "1", price: formatAmount(Math.abs(net), digits), per: "1" };
  const signed = net < 0 ? `-${pieces}` : pieces;
  const each = divide(exactFromInteger(Math.abs(net)), exact);
  if (each.n % each.d === 0n)
    return { quantity: signed, price: formatAmount(Number(each.n / each.d), digits), per: "1" };
  return { quantity: signed, price: formatAmount(Math.abs(net), digits), per: pieces };
}

function breakdown(lines: readonly EInvoiceLine[], priced: readonly PricedLine[]): EInvoiceTax[] {
  const rows = new Map<string, EInvoiceTax>();
  lines.forEach(({ category, rate, net }, index) => {
    const key = `${category} ${rate}`;
    const row = rows.get(key) ?? { category, rate, taxable: 0, tax: 0, reason: textAt(REASONS, category) };
    const line = priced[index];
    const tax = line ? line.gross - shown(line) : 0;
    rows.set(key, { ...row, taxable: row.taxable + net, tax: row.tax + tax });
  });
  return [...rows.values()];
}
