import { at } from "../at.ts";
import { FiscalError, withinField } from "../errors.ts";
import { allocate } from "../money/allocate.ts";
import { add } from "../money/exact.ts";
import { isJournal, lineSide, rateDateOf } from "../model/document.ts";
import type { DocumentInput, LineInput, PriceMode } from "../model/document.ts";
import { attributeName } from "../model/lineAttributes.ts";
import type { CodeChoice, LevyTotal, PricedDocument, PricedLine } from "../model/pricedDocument.ts";
import type { Rounding } from "../model/rounding.ts";
import type { RateSchedules, RateSpec, TaxCode } from "../model/taxCode.ts";
import type { ComponentTax, LineDetails } from "./componentTax.ts";
import { lineAmounts } from "./lineAmounts.ts";
import { netAndGross, priceLine } from "./priceLine.ts";
import { creditCap } from "./creditCap.ts";
import { ratedComponents } from "./ratedComponents.ts";
import { afterLineStep, roundTax } from "./rounding.ts";
import { onOneDenominator } from "../money/onOneDenominator.ts";
import { shareTypedTotal, spreadTypedTax, typedTaxOf } from "./typedTax.ts";

/** What pricing needs to know beside the document and the codes of its lines. */
export interface PricingSetup {
  /** Decimals of the currency. */
  digits: number;
  schedules: RateSchedules;
  /** How the registration for a levy rounds. */
  roundingOf: (levy: string) => Rounding;
  /** Whether the registration for a levy deducts tax on purchases at all. */
  deducts: (levy: string) => boolean;
}

type Line = PricedLine<ComponentTax>;

/**
 * Prices a document: amounts, discounts, each levy of each line, rounding by line or by document, figures typed
 * from the paper. The same function previews in the browser and posts on the server.
 * @param choices the code of each line with its circumstances, see chooseCodes
 * @returns whole minor units; net + charged tax = gross, for each line and for the document
 * @throws FiscalError with the path of the field: `tax/no-rate`, `tax/missing-input`,
 *   `tax/typed-tax-without-levy` and what lineAmounts throws
 */
export function priceDocument(
  document: DocumentInput,
  choices: readonly CodeChoice[],
  setup: PricingSetup,
): PricedDocument<ComponentTax> {
  const amounts = lineAmounts(document, setup.digits);
  const perDocument = new Set<string>();
  const lines = document.lines.map((line, index) =>
    withinField(`lines[${index}]`, () =>
      pricedLine(document, line, index, at(amounts, index), at(choices, index), setup, perDocument),
    ),
  );
  roundByDocument(lines);
  document.lines.forEach(({ typedTotal }, index) => {
    if (typedTotal === undefined || typedTotal.trim() === "") return;
    withinField(`lines[${index}]`, () => shareTypedTotal(at(lines, index).taxes, typedTotal, setup.digits));
  });
  spreadTypedTax(lines, document, setup.digits);
  for (const line of lines) finishLine(line);
  return totalsOf(lines, isJournal(document));
}

function pricedLine(
  document: DocumentInput,
  line: LineInput,
  index: number,
  amount: number,
  choice: CodeChoice,
  setup: PricingSetup,
  perDocument: Set<string>,
): Line {
  const { code } = choice;
  const side = lineSide(document, line, code);
  const mode = modeOf(document, line, code);
  const priced = (price: number, taxes: ComponentTax[], rounding: Rounding): Line => ({
    code,
    source: choice.source,
    reason: choice.reason,
    asks: choice.asks,
    circumstances: choice.circumstances,
    no: index + 1,
    direction: side.direction,
    sign: side.sign,
    mode,
    net: amount,
    gross: amount,
    amount: price,
    taxes,
    rounding,
  });
  if (!code || side.direction === null) {
    typedTaxOf(line, undefined, setup.digits);
    return priced(amount, [], setup.roundingOf(""));
  }
  const components = ratedComponents(code, rateDateOf(document, line), setup.schedules, choice.circumstances);
  const rounding = setup.roundingOf(components[0]?.component.levy ?? "");
  const price = isJournal(document) ? Math.abs(amount) : amount;
  const details = detailsOf(line, code, price, setup.digits);
  const first = components.some(({ component }) => component.rate.kind === "per-document");
  if (first) {
    details.carriesDocumentAmounts = !perDocument.has(code.code);
    perDocument.add(code.code);
  }
  const taxes = priceLine(code.amountIs === "tax" ? 0 : price, mode, components, rounding, details);
  for (const tax of taxes) {
    const cap = creditCap(
      tax.component,
      tax.rate,
      line.quantity,
      rateDateOf(document, line),
      setup.schedules,
      setup.digits,
    );
    if (!cap) continue;
    tax.cap = cap;
    tax.count(tax.tax);
  }
  shareOut(taxes, line, code);
  for (const tax of taxes) {
    if (setup.deducts(tax.component.levy)) continue;
    tax.share = "0";
    tax.count(tax.tax);
  }
  return priced(price, taxes, rounding);
}

/** Some codes fix what their amount is, whatever the mode of line and document. */
function modeOf(document: DocumentInput, line: LineInput, code: TaxCode | undefined): PriceMode {
  if (code?.amountIs === "gross") return "inclusive";
  return code?.amountIs === "base" ? "exclusive" : (line.prices ?? document.prices);
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

/** A line may deduct less than its code does: its attribute `recoverable` is a percentage, which some codes need. */
function shareOut(taxes: readonly ComponentTax[], line: LineInput, code: TaxCode): void {
  percentOf(line, code, "privateShare");
  const typed = percentOf(line, code, "recoverable");
  if (typed === undefined) return;
  const { wholeShare } = code;
  const share =
    wholeShare === undefined
      ? typed
      : Number(typed) >= wholeShare.from
        ? "100"
        : Number(typed) <= wholeShare.noneUpTo
          ? "0"
          : typed;
  for (const tax of taxes) {
    tax.share = share;
    tax.count(tax.tax);
  }
}

/** A percentage of a line, where it has one; some codes need theirs. */
function percentOf(line: LineInput, code: TaxCode, id: "recoverable" | "privateShare"): string | undefined {
  const typed = line.attributes?.[id]?.trim();
  if (typed === undefined || typed === "") {
    if (!code.inputs?.includes(id)) return undefined;
    throw new FiscalError(
      "tax/missing-input",
      `Code ${code.code} needs the ${attributeName(id)}. Fill it in.`,
      `attributes.${id}`,
    );
  }
  if (!/^\d{1,3}(\.\d{1,6})?$/.test(typed) || Number(typed) > 100) {
    throw new FiscalError(
      "tax/bad-share",
      `"${typed}" is not a percentage between 0 and 100.`,
      `attributes.${id}`,
    );
  }
  return typed;
}

/** Sums the exact tax per levy and rate, rounds once, and spreads the result over the lines. */
function roundByDocument(lines: readonly Line[]): void {
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
      const tax = at(taxes, index);
      tax.calculated = share;
      if (!tax.typed) tax.count(share);
    });
  }
}

function finishLine(line: Line): void {
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

function totalsOf(lines: Line[], journal: boolean): PricedDocument<ComponentTax> {
  const sum = (of: (line: Line) => number) =>
    journal ? 0 : lines.reduce((total, line) => total + of(line), 0);
  const [net, gross] = [sum((line) => line.net), sum((line) => line.gross)];
  return { lines, net, tax: gross - net, gross, levies: levyTotals(lines) };
}

/** The taxes of lines added up, a row a levy and rate, in order of appearance. */
export function levyTotals(lines: readonly PricedLine[]): LevyTotal[] {
  const levies = new Map<string, LevyTotal>();
  for (const line of lines) {
    for (const { component, rate, tax } of line.taxes) {
      const { levy, charged } = component;
      const per = PER[component.rate.kind];
      const key = `${levy} ${per} ${rate} ${charged}`;
      const row = levies.get(key) ?? { levy, rate, per, net: 0, tax: 0, charged };
      levies.set(key, { ...row, net: row.net + line.net, tax: row.tax + tax });
    }
  }
  return [...levies.values()];
}

const PER = {
  percent: "percent",
  "per-unit": "unit",
  "per-document": "document",
  formula: "formula",
  none: "none",
  typed: "none",
} as const satisfies Record<RateSpec["kind"], LevyTotal["per"]>;
