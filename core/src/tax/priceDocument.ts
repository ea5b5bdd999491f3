import { FiscalError, withinField } from "../errors.ts";
import { add } from "../money/exact.ts";
import { circumstancesOf } from "../supply/circumstances.ts";
import { lineCode } from "../supply/lineCode.ts";
import type { CodeFinder } from "../supply/lineCode.ts";
import type { ComponentTax, LineDetails } from "./componentTax.ts";
import { DOCUMENT_KINDS, isJournal, rateDateOf } from "./documentInput.ts";
import type { DocumentInput, LineInput, PriceMode } from "./documentInput.ts";
import { lineAmounts } from "./lineAmounts.ts";
import { netAndGross, priceLine } from "./priceLine.ts";
import { ratedComponents } from "./ratedComponents.ts";
import { afterLineStep, roundTax } from "./rounding.ts";
import type { Rounding } from "./rounding.ts";
import { onOneDenominator, spreadTypedTax, typedTaxOf } from "./typedTax.ts";
import { allocate } from "../money/allocate.ts";
import type { Direction, RateSchedules, TaxCode } from "./taxCode.ts";

/** What pricing needs to know beside the document. */
export interface PricingSetup extends CodeFinder {
  /** Decimals of the currency. */
  digits: number;
  schedules: RateSchedules;
  /** How the registration for a levy rounds. */
  roundingOf: (levy: string) => Rounding;
}

/**
 * A line in whole minor units, unsigned by document kind: a credit note's lines are positive here. `sign` and
 * `direction` say how it counts; on a journal the code and the side of the line decide them.
 */
export interface PricedLine {
  /** Position in the document, from 1. */
  no: number;
  code: TaxCode | undefined;
  /** Why this code, where it was not typed. */
  codeReason: string | undefined;
  direction: Direction | null;
  sign: 1 | -1;
  amount: number;
  /** Whether `amount` has tax in it. */
  mode: PriceMode;
  net: number;
  gross: number;
  taxes: ComponentTax[];
  rounding: Rounding;
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
 *   `tax/code-not-active`, `tax/no-rate`, `tax/missing-input`, `tax/typed-tax-without-levy` and what lineAmounts
 *   throws
 */
export function priceDocument(document: DocumentInput, setup: PricingSetup): PricedDocument {
  const amounts = lineAmounts(document, setup.digits);
  const perDocument = new Set<string>();
  const lines = document.lines.map((line, index) =>
    withinField(`lines[${index}]`, () =>
      pricedLine(document, line, index, amounts[index] ?? 0, setup, perDocument),
    ),
  );
  roundByDocument(lines);
  if (document.typedTax) spreadTypedTax(lines, document.typedTax, setup.digits);
  for (const line of lines) finishLine(line);
  return totalsOf(lines, isJournal(document));
}

function pricedLine(
  document: DocumentInput,
  line: LineInput,
  index: number,
  amount: number,
  setup: PricingSetup,
  perDocument: Set<string>,
): PricedLine {
  const side = sideOf(document, amount, line.code ? setup.codes.get(line.code) : undefined);
  const { code, reason } = lineCode(document, line, side.direction, setup);
  const mode = modeOf(document, line, code);
  const base = { no: index + 1, code, codeReason: reason, ...side, mode, net: amount, gross: amount };
  if (!code || side.direction === null) {
    typedTaxOf(line, undefined, setup.digits);
    return { ...base, amount, taxes: [], rounding: setup.roundingOf("") };
  }
  const credit = side.sign < 0;
  const circumstances = circumstancesOf(document, line, side.direction, credit, code);
  const components = ratedComponents(code, rateDateOf(document), setup.schedules, circumstances);
  const rounding = setup.roundingOf(components[0]?.component.levy ?? "");
  const price = isJournal(document) ? Math.abs(amount) : amount;
  const details = detailsOf(line, code, price, setup.digits);
  const first = components.some(({ component }) => component.rate.kind === "per-document");
  if (first) {
    details.carriesDocumentAmounts = !perDocument.has(code.code);
    perDocument.add(code.code);
  }
  const taxes = priceLine(code.amountIs === "tax" ? 0 : price, mode, components, rounding, details);
  shareOut(taxes, line);
  return { ...base, amount: price, taxes, rounding };
}

/** Some codes fix what their amount is, whatever the mode of line and document. */
function modeOf(document: DocumentInput, line: LineInput, code: TaxCode | undefined): PriceMode {
  if (code?.amountIs === "gross") return "inclusive";
  return code?.amountIs === "base" ? "exclusive" : (line.prices ?? document.prices);
}

function sideOf(
  { kind }: DocumentInput,
  amount: number,
  code: TaxCode | undefined,
): Pick<PricedLine, "direction" | "sign"> {
  const { direction, sign } = DOCUMENT_KINDS[kind];
  if (direction !== null) return { direction, sign };
  if (!code) return { direction: null, sign: 1 };
  const own = code.direction === "both" ? (amount < 0 ? "sale" : "purchase") : code.direction;
  return { direction: own, sign: (own === "sale") === amount < 0 ? 1 : -1 };
}

function detailsOf(line: LineInput, code: TaxCode, amount: number, digits: number): LineDetails {
  const typed = typedTaxOf(line, code, digits);
  const levy = code.components[0]?.levy ?? "";
  const figures = code.amountIs === "tax" ? { [levy]: amount, ...typed } : typed;
  return {
    digits,
    ...(Object.keys(figures).length === 0 ? {} : { typed: figures }),
    ...(line.quantity ? { quantity: line.quantity } : {}),
    ...(line.unitPrice ? { unitPrice: line.unitPrice } : {}),
    ...(code.inputs ? { inputs: inputsOf(line, code.inputs) } : {}),
  };
}

function inputsOf(line: LineInput, names: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    names.flatMap((name) => {
      const value = line.attributes?.[name];
      return value === undefined || value.trim() === "" ? [] : [[name, value.trim()]];
    }),
  );
}

/** A line may deduct less than its code does: its attribute `recoverable` is a percentage. */
function shareOut(taxes: readonly ComponentTax[], line: LineInput): void {
  const own = line.attributes?.["recoverable"];
  if (own === undefined || own === "") return;
  if (!/^\d{1,3}(\.\d{1,6})?$/.test(own) || Number(own) > 100) {
    throw new FiscalError(
      "tax/bad-share",
      `"${own}" is not a percentage between 0 and 100.`,
      "attributes.recoverable",
    );
  }
  for (const tax of taxes) {
    tax.ownShare = own;
    tax.count(tax.tax);
  }
}

/** Sums the exact tax per levy and rate, rounds once, and spreads the result over the lines. */
function roundByDocument(lines: readonly PricedLine[]): void {
  const groups = new Map<string, { taxes: ComponentTax[]; rounding: Rounding }>();
  for (const line of lines) {
    if (line.rounding.level !== "document") continue;
    for (const tax of line.taxes) {
      if (tax.exact.n === 0n) continue;
      const key = `${tax.component.levy} ${tax.rate} ${tax.component.charged} ${line.sign}`;
      const group = groups.get(key) ?? { taxes: [], rounding: line.rounding };
      group.taxes.push(tax);
      groups.set(key, group);
    }
  }
  for (const { taxes, rounding } of groups.values()) {
    const exacts = taxes.map((tax) => afterLineStep(tax.exact, rounding));
    const total = roundTax(exacts.reduce(add), rounding);
    allocate(total, onOneDenominator(exacts)).forEach((share, index) => {
      const tax = taxes[index];
      if (!tax) return;
      tax.calculated = share;
      if (!tax.typed) tax.count(share);
    });
  }
}

function finishLine(line: PricedLine): void {
  const means = line.code?.amountIs ?? "price";
  if (line.direction === null) return;
  if (line.code && (means === "price" || means === "gross")) {
    Object.assign(line, netAndGross(line.amount, line.mode, line.taxes));
    return;
  }
  if (!line.code) return;
  const { gross } = netAndGross(0, "exclusive", line.taxes);
  line.net = 0;
  line.gross = gross;
}

function totalsOf(lines: PricedLine[], journal: boolean): PricedDocument {
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
  const { net, gross } = journal ? { net: 0, gross: 0 } : sum;
  return { lines, net, tax: gross - net, gross, levies: [...levies.values()] };
}
