import { displayAmount } from "../../money/amount.ts";
import { exactFromDecimal, exactFromInteger, multiply } from "../../money/exact.ts";
import { roundExact } from "../../money/roundExact.ts";
import type { EInvoice, EInvoiceTax } from "./eInvoice.ts";

/** A rule of the standard that the invoice's own figures break: what it says and what comes out. */
export interface TotalsProblem {
  rule: string;
  text: string;
}

/** Tax by category may differ from the calculation by what rounding each line does. */
const ROUNDING_TOLERANCE = 100;

/**
 * Recomputes an invoice's totals and compares: the sums of BR-CO-10 to BR-CO-16, the tax of each category by
 * BR-CO-17, the taxable amount of each category and rate by BR-S-08 and its kin, no tax where the category has none
 * (BR-Z-09, BR-E-09, BR-AE-09, BR-IC-09, BR-G-09, BR-O-09), and the one VAT breakdown BR-CO-18 asks for.
 * @param digits decimals of the currency
 * @source EN 16931-1:2017, business rules; the tolerance of one unit in BR-CO-17 as in the published Schematron; from
 *   memory
 */
export function checkTotals(invoice: EInvoice, digits: number): TotalsProblem[] {
  const { totals, lines, allowances, taxes } = invoice;
  const sum = <T>(list: readonly T[], of: (one: T) => number) =>
    list.reduce((total, one) => total + of(one), 0);
  const lineSum = sum(lines, ({ net }) => net);
  const taken = sum(allowances, ({ charge, amount }) => (charge ? 0 : amount));
  const charged = sum(allowances, ({ charge, amount }) => (charge ? amount : 0));
  const taxSum = sum(taxes, ({ tax }) => tax);
  const exclusive = totals.lines - totals.allowances + totals.charges;
  return [
    ...differs("BR-CO-10", "Sum of the lines", totals.lines, lineSum, digits),
    ...differs("BR-CO-11", "Sum of the allowances", totals.allowances, taken, digits),
    ...differs("BR-CO-12", "Sum of the charges", totals.charges, charged, digits),
    ...differs("BR-CO-13", "Total without tax", totals.exclusive, exclusive, digits),
    ...differs("BR-CO-14", "Total tax", totals.tax, taxSum, digits),
    ...differs("BR-CO-15", "Total with tax", totals.inclusive, totals.exclusive + totals.tax, digits),
    ...differs("BR-CO-16", "Amount to pay", totals.payable, totals.inclusive - totals.prepaid, digits),
    ...(taxes.length === 0 ? [{ rule: "BR-CO-18", text: "There is no breakdown of the tax." }] : []),
    ...taxes.flatMap((row) => [...taxByRate(row, digits), ...taxableOf(row, invoice, digits)]),
    ...unheardOf(invoice),
  ];
}

function differs(rule: string, what: string, says: number, is: number, digits: number): TotalsProblem[] {
  if (says === is) return [];
  const text = `${what}: the invoice says ${displayAmount(says, digits)}, its parts give ${displayAmount(is, digits)}.`;
  return [{ rule, text }];
}

function taxByRate({ category, rate, taxable, tax }: EInvoiceTax, digits: number): TotalsProblem[] {
  if (category !== "S" && category !== "L" && category !== "M") {
    const rule = `BR-${RULES[category] ?? category}-09`;
    return tax === 0 ? [] : differs(rule, `Tax of category ${category}`, tax, 0, digits);
  }
  const exact = multiply(exactFromInteger(taxable), { n: 1n, d: 100n });
  const calculated = roundExact(multiply(exact, exactFromDecimal(rate)));
  if (Math.abs(calculated - tax) < ROUNDING_TOLERANCE) return [];
  return differs("BR-CO-17", `Tax at ${rate} %`, tax, calculated, digits);
}

/** Names of the rules by category where they are not the category's own letter. */
const RULES: Partial<Record<string, string>> = { K: "IC" };

function taxableOf(row: EInvoiceTax, { lines, allowances }: EInvoice, digits: number): TotalsProblem[] {
  const same = (one: { category: string; rate: string }) =>
    one.category === row.category && Number(one.rate) === Number(row.rate);
  const parts =
    lines.filter(same).reduce((total, { net }) => total + net, 0) +
    allowances.filter(same).reduce((total, { charge, amount }) => total + (charge ? amount : -amount), 0);
  const rule = `BR-${RULES[row.category] ?? row.category}-08`;
  return differs(
    rule,
    `Taxable amount of category ${row.category} at ${row.rate} %`,
    row.taxable,
    parts,
    digits,
  );
}

/** A line of a category and rate that the breakdown does not have. */
function unheardOf({ lines, taxes }: EInvoice): TotalsProblem[] {
  const missing = lines.filter(
    (line) =>
      !taxes.some(({ category, rate }) => category === line.category && Number(rate) === Number(line.rate)),
  );
  return missing.map(({ id, category, rate }) => ({
    rule: `BR-${RULES[category] ?? category}-01`,
    text: `Line ${id} is of category ${category} at ${rate} %, which the breakdown of the tax does not have.`,
  }));
}
