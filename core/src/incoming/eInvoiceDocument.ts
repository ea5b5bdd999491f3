import { displayDate } from "../calendar/displayDate.ts";
import { usualKind } from "../model/documentKinds.ts";
import { FiscalError } from "../errors.ts";
import { formatAmount } from "../money/amount.ts";
import { exactFromDecimal, compare } from "../money/exact.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";
import { rowInForce } from "../tax/rateInForce.ts";
import type { Direction, RateSchedules, TaxCode, Treatment } from "../model/taxCode.ts";
import type { EInvoice, TaxCategory } from "../formats/einvoice/eInvoice.ts";

const TREATMENTS: Record<TaxCategory, { sale: readonly Treatment[]; purchase: readonly Treatment[] }> = {
  S: { sale: ["standard", "reduced"], purchase: ["standard", "reduced"] },
  Z: { sale: ["zero"], purchase: ["zero"] },
  E: { sale: ["exempt"], purchase: ["exempt"] },
  AE: { sale: ["reverse-charge-supplier"], purchase: ["reverse-charge"] },
  K: { sale: ["intra-union"], purchase: ["intra-union", "reverse-charge"] },
  G: { sale: ["export"], purchase: ["import", "zero"] },
  O: { sale: ["out-of-scope"], purchase: ["out-of-scope"] },
  L: { sale: ["standard"], purchase: ["standard"] },
  M: { sale: ["standard"], purchase: ["standard"] },
};

/** What choosing codes for an e-invoice needs of the set-up. `chosen`: by `category rate`, what a person decided. */
export interface EInvoiceReading {
  direction: Direction;
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  chosen: Readonly<Record<string, string>>;
  account: string | null;
  /** Decimals of the invoice's currency. */
  digits: number;
}

/**
 * An e-invoice as a document of the books: a line each, allowances and charges as lines of their own, the code by
 * category and rate. The tax the invoice states by category is kept as typed where lines alone give another.
 * @throws FiscalError `formats/einvoice-code` that names the category and rate no code fits
 */
export function documentOf(invoice: EInvoice, reading: EInvoiceReading): DocumentInput & { number: string } {
  const line = (text: string, net: number, of: { category: TaxCategory; rate: string }): LineInput => ({
    ...(text === "" ? {} : { text: text.slice(0, 2000) }),
    amount: formatAmount(net, reading.digits),
    ...codeOf(of, invoice.taxPoint ?? invoice.date, reading),
    ...(reading.account === null ? {} : { account: reading.account }),
  });
  return {
    kind: usualKind(reading.direction, invoice.credit),
    number: invoice.number,
    date: invoice.date,
    ...(invoice.taxPoint === null ? {} : { taxPoint: invoice.taxPoint }),
    ...(invoice.due === null ? {} : { due: invoice.due }),
    prices: "exclusive",
    currency: invoice.currency,
    ...(invoice.corrects === "" ? {} : { corrects: invoice.corrects }),
    lines: [
      ...invoice.lines.map((one) => line(one.name, one.net, one)),
      ...invoice.allowances.map((one) => line(one.reason, one.charge ? one.amount : -one.amount, one)),
    ],
  };
}

function codeOf(
  { category, rate }: { category: TaxCategory; rate: string },
  on: string,
  { direction, codes, schedules, chosen }: EInvoiceReading,
): Pick<LineInput, "code" | "codeReason"> {
  const key = `${category} ${rate}`;
  const choice = chosen[key];
  if (choice !== undefined) return { code: choice, codeReason: "chosen for the category of the e-invoice" };
  for (const code of codes.values()) {
    if (!TREATMENTS[category][direction].includes(code.treatment)) continue;
    if (code.direction !== "both" && code.direction !== direction) continue;
    if (fits(code, category, rate, on, schedules))
      return { code: code.code, codeReason: `category ${category} at ${rate} % on the e-invoice` };
  }
  throw new FiscalError(
    "formats/einvoice-code",
    `No tax code fits category ${category} at ${rate} % on ${displayDate(on)}. Choose one under “How the file is read”.`,
    key,
  );
}

/** A taxed category wants the rate; of the others any plain code of the treatment will do. */
function fits(
  { components }: TaxCode,
  category: TaxCategory,
  rate: string,
  on: string,
  schedules: RateSchedules,
): boolean {
  if (category !== "S" && category !== "L" && category !== "M") return true;
  const [only, more] = components;
  if (
    !only ||
    more ||
    only.charged !== "charged" ||
    only.rate.kind !== "percent" ||
    only.recoverable !== "100"
  )
    return false;
  const row = rowInForce(schedules[only.rate.schedule], on);
  return row !== undefined && compare(exactFromDecimal(row.rate), exactFromDecimal(rate)) === 0;
}
