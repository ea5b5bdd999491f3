import { FiscalError, withinField } from "../errors.ts";
import { allocate } from "../money/allocate.ts";
import { parseAmount } from "../money/amount.ts";
import { add } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { DOCUMENT_KINDS, taxPointOf } from "./documentInput.ts";
import type { DocumentInput, LineInput } from "./documentInput.ts";
import { lineAmounts } from "./lineAmounts.ts";
import { netAndGross, priceLine, recoverablePart } from "./priceLine.ts";
import type { ComponentTax, RatedComponent } from "./priceLine.ts";
import { rateInForce } from "./rateInForce.ts";
import { afterLineStep, roundTax } from "./rounding.ts";
import type { Rounding } from "./rounding.ts";
import type { RateSchedules, TaxCode } from "./taxCode.ts";

/** What pricing needs to know beside the document. */
export interface PricingSetup {
  /** Decimals of the currency. */
  digits: number;
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  rounding: Rounding;
}

/** A line in whole minor units, unsigned by document kind: a credit note's lines are positive here. */
export interface PricedLine {
  /** Position in the document, from 1. */
  no: number;
  code: TaxCode | undefined;
  amount: number;
  net: number;
  gross: number;
  taxes: ComponentTax[];
}

export interface PricedDocument {
  lines: PricedLine[];
  net: number;
  /** Tax charged on the document; self-assessed tax is not part of it. */
  tax: number;
  gross: number;
  /** One row a levy and rate, in order of appearance. `net` is the net of the lines that bear it. */
  levies: { levy: string; rate: string | null; net: number; tax: number; charged: boolean }[];
}

/**
 * Prices a document: amounts, discounts, each levy of each line, rounding by line or by document, figures typed
 * from the paper. The same function previews in the browser and posts on the server.
 * @returns whole minor units; net + charged tax = gross, for each line and for the document
 * @throws FiscalError with the path of the field: `tax/unknown-code`, `tax/code-wrong-side`,
 *   `tax/code-not-active`, `tax/no-rate`, `tax/typed-tax-without-levy` and what lineAmounts throws
 */
export function priceDocument(document: DocumentInput, setup: PricingSetup): PricedDocument {
  const amounts = lineAmounts(document, setup.digits);
  const lines = document.lines.map((line, index) =>
    withinField(`lines[${index}]`, () => pricedLine(document, line, index, amounts[index] ?? 0, setup)),
  );
  if (setup.rounding.level === "document") roundByDocument(lines, setup.rounding);
  if (document.typedTax) spreadTypedTax(lines, document.typedTax, setup.digits);
  for (const line of lines) Object.assign(line, netAndGross(line.amount, document.prices, line.taxes));
  return totalsOf(lines);
}

function pricedLine(
  document: DocumentInput,
  line: LineInput,
  index: number,
  amount: number,
  setup: PricingSetup,
): PricedLine {
  const code = codeOf(document, line, setup.codes);
  const typed = typedTaxOf(line, code, setup.digits);
  const taxes = code
    ? priceLine(
        amount,
        document.prices,
        ratedComponents(code, document, setup.schedules),
        setup.rounding,
        typed,
      )
    : [];
  return { no: index + 1, code, amount, net: amount, gross: amount, taxes };
}

function codeOf(
  document: DocumentInput,
  line: LineInput,
  codes: ReadonlyMap<string, TaxCode>,
): TaxCode | undefined {
  if (!line.code) return undefined;
  const code = codes.get(line.code);
  if (!code) {
    throw new FiscalError(
      "tax/unknown-code",
      `There is no tax code ${line.code}. Choose one of the list.`,
      "code",
    );
  }
  const { direction } = DOCUMENT_KINDS[document.kind];
  if (direction && code.direction !== "both" && code.direction !== direction) {
    throw new FiscalError(
      "tax/code-wrong-side",
      `${code.code} is for ${code.direction}s; this document is a ${direction}. Choose a ${direction} code.`,
      "code",
    );
  }
  const on = taxPointOf(document);
  if ((code.from !== null && on < code.from) || (code.to !== null && on > code.to)) {
    throw new FiscalError(
      "tax/code-not-active",
      `${code.code} is in use ${activeInWords(code)}; the tax point is ${on}.`,
      "code",
    );
  }
  return code;
}

function activeInWords(code: TaxCode): string {
  const since = code.from === null ? "" : `from ${code.from}`;
  return code.to === null ? since : `${since} to ${code.to}`.trim();
}

/** The components of a code with the rates in force at the tax point of the document. */
export function ratedComponents(
  code: TaxCode,
  document: Pick<DocumentInput, "date" | "taxPoint">,
  schedules: RateSchedules,
): RatedComponent[] {
  return code.components.map((component) => ({
    component,
    rate: rateInForce(component, schedules, taxPointOf(document))?.rate ?? null,
  }));
}

function typedTaxOf(line: LineInput, code: TaxCode | undefined, digits: number): Record<string, number> {
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

/** Sums the exact tax per levy and rate, rounds once, and spreads the result over the lines. */
function roundByDocument(lines: readonly PricedLine[], rounding: Rounding): void {
  const groups = new Map<string, ComponentTax[]>();
  for (const tax of lines.flatMap((line) => line.taxes)) {
    if (tax.exact.n === 0n) continue;
    const key = `${tax.component.levy} ${tax.rate} ${tax.component.charged}`;
    groups.set(key, [...(groups.get(key) ?? []), tax]);
  }
  for (const group of groups.values()) {
    const exacts = group.map((tax) => afterLineStep(tax.exact, rounding));
    const total = roundTax(exacts.reduce(add), rounding);
    allocate(total, onOneDenominator(exacts)).forEach((share, index) => {
      const tax = group[index];
      if (tax) setCalculated(tax, share);
    });
  }
}

function setCalculated(tax: ComponentTax, calculated: number): void {
  tax.calculated = calculated;
  if (!tax.typed) setTax(tax, calculated);
}

function setTax(tax: ComponentTax, amount: number): void {
  tax.tax = amount;
  tax.recoverable = recoverablePart(amount, tax.component);
}

function onOneDenominator(exacts: readonly Exact[]): bigint[] {
  const common = exacts.reduce(
    (product, exact) => (product % exact.d === 0n ? product : product * exact.d),
    1n,
  );
  return exacts.map((exact) => (exact.n * common) / exact.d);
}

/** The tax of a whole document from the paper, spread over the lines that bear it by calculated tax. */
function spreadTypedTax(lines: readonly PricedLine[], typed: Record<string, string>, digits: number): void {
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
      setTax(tax, share);
      tax.typed = true;
    });
  }
}

function totalsOf(lines: PricedLine[]): PricedDocument {
  const levies = new Map<string, PricedDocument["levies"][number]>();
  const sum = { net: 0, gross: 0 };
  for (const line of lines) {
    sum.net += line.net;
    sum.gross += line.gross;
    for (const { component, rate, tax } of line.taxes) {
      const charged = component.charged === "charged";
      const key = `${component.levy} ${rate} ${charged}`;
      const row = levies.get(key) ?? { levy: component.levy, rate, net: 0, tax: 0, charged };
      levies.set(key, { ...row, net: row.net + line.net, tax: row.tax + tax });
    }
  }
  return { lines, net: sum.net, tax: sum.gross - sum.net, gross: sum.gross, levies: [...levies.values()] };
}
