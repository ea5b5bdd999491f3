import { displayAmount } from "../money/amount.ts";
import type { CheckDefinition, Finding } from "../model/finding.ts";

/** Every check, in the order in which findings are shown. Where its rule stands is told by the pack (`claims`). */
export const CHECKS = {
  arithmetic: { severity: "stop", title: "The boxes do not add up" },
  "more-than-rounding": {
    severity: "check",
    title: "The return and the ledger differ by more than rounding",
  },
  turnover: { severity: "check", title: "Income on no return, and nobody has said why" },
  agreement: { severity: "check", title: "An agreement leaves a rest, and nobody has accepted it" },
  statement: { severity: "check", title: "What others say differs, and nobody has decided" },
  "no-code": { severity: "stop", title: "Line without a tax code" },
  "no-account": {
    severity: "stop",
    title: "Levy without an account",
  },
  "no-region": {
    severity: "stop",
    title: "Region not known, so no box",
  },
  "no-box": {
    severity: "stop",
    title: "Tax on the ledger that is on no return",
  },
  unallocated: {
    severity: "check",
    title: "Money without a document, where tax waits for money",
  },
  "no-registration": {
    severity: "check",
    title: "Tax point without a registration",
  },
  "self-assessed": { severity: "stop", title: "Reverse charge on one side only" },
  "box-6-purchase": {
    severity: "stop",
    title: "Purchase in the turnover box",
  },
  blocked: { severity: "check", title: "Blocked input tax deducted" },
  "wages-coded": { severity: "check", title: "Outside the scope, but counted" },
  "foreign-vat": {
    severity: "check",
    title: "Domestic rate from a supplier abroad",
  },
  "unregistered-supplier": {
    severity: "check",
    title: "VAT from a supplier who is not registered",
  },
  "no-supplier-number": {
    severity: "check",
    title: "No valid tax number for a large claim",
  },
  duplicate: { severity: "check", title: "Entered twice, perhaps" },
  "series-gap": {
    severity: "check",
    title: "Numbers missing in a series",
  },
  "typed-tax": {
    severity: "check",
    title: "Typed tax differs from the calculated one",
    source: "tolerance of 1 % or 5 minor units",
  },
  "levy-order": {
    severity: "check",
    title: "Stacked levies split in another order than the law's",
  },
  "income-account": {
    severity: "check",
    title: "Purchase posted to an income account",
  },
  "tax-only": {
    severity: "check",
    title: "Tax without a value or a document number",
  },
  old: {
    severity: "check",
    title: "Tax point too old to claim",
  },
  "late-item": { severity: "check", title: "Late item" },
  "reverse-charge-customer": {
    severity: "check",
    title: "Reverse charge to a customer without a valid number",
  },
  "northern-ireland": {
    severity: "check",
    title: "EU goods boxes used outside Northern Ireland",
  },
  "operator-supplier": {
    severity: "check",
    title: "Supplier behind an operator's supply",
  },
  "import-certificate": {
    severity: "check",
    title: "Import VAT without its certificate",
  },
  "exempt-sales": {
    severity: "check",
    title: "Exempt sales, input tax deducted in full",
  },
  "goods-share": { severity: "check", title: "Goods and service at one price, at the other rate" },
  "outside-scheme": { severity: "stop", title: "Coded for a scheme that is not in force" },
  "pool-limit": { severity: "check", title: "Too dear for the pool" },
  "stock-book": { severity: "check", title: "Margin sale without its record" },
  "capital-share": { severity: "check", title: "Use of a capital item not on record" },
  "capital-unlisted": { severity: "check", title: "Dear purchase that is on no list of capital items" },
  "year-end": { severity: "check", title: "Added back once the fiscal year is over" },
  "unpaid-input": { severity: "check", title: "Unpaid for longer than the law allows" },
  "scheme-limit": { severity: "check", title: "Income above the limit of the scheme" },
  "average-price": { severity: "check", title: "Average price other than that of the period's sales" },
  "distance-sales": { severity: "check", title: "Consumers in other members, above the limit of the union" },
  "turnover-limit": { severity: "check", title: "Sales above a limit of the law" },
  unusual: {
    severity: "check",
    title: "Far from the same period last year",
  },
} as const satisfies Record<string, CheckDefinition>;

export type CheckId = keyof typeof CHECKS;

/** How a key names a document, so that the key can be told again where the document has another id. */
export function documentKey(id: number): string {
  return `document/${id}`;
}

/** Builds a finding of a check; `parts` make its key unique and stable. Documents in it are named by documentKey. */
export function finding(
  check: CheckId,
  parts: readonly (string | number)[],
  text: string,
  where: { document?: number | null; line?: number | null } = {},
): Finding {
  return {
    key: [check, ...parts].join(":"),
    check,
    severity: CHECKS[check].severity,
    text,
    document: where.document ?? null,
    line: where.line ?? null,
  };
}

/** "VAT of 41.60" */
export function taxOf(levy: string, amount: number, digits: number): string {
  return `${levy} of ${displayAmount(amount, digits)}`;
}
