import { displayAmount } from "../money/amount.ts";
import type { CheckDefinition, Finding } from "./finding.ts";

/** Every check, in the order in which findings are shown. */
export const CHECKS = {
  arithmetic: { severity: "stop", title: "The boxes do not add up", source: "VAT Notice 700/12" },
  "no-code": { severity: "stop", title: "Line without a tax code", source: "common practice, no source" },
  "no-account": {
    severity: "stop",
    title: "Levy without an account",
    source: "common practice, no source",
  },
  "no-region": {
    severity: "stop",
    title: "Region not known, so no box",
    source: "common practice, no source",
  },
  unallocated: {
    severity: "check",
    title: "Money without a document, on the cash basis",
    source: "VAT Notice 731 and the like elsewhere",
  },
  "no-registration": {
    severity: "check",
    title: "Tax point without a registration",
    source: "VATA 1994 Sch 1",
  },
  "self-assessed": { severity: "stop", title: "Reverse charge on one side only", source: "VATA 1994 s.8" },
  "box-6-purchase": {
    severity: "stop",
    title: "Purchase in the turnover box",
    source: "VAT Notice 735, VAT Notice 700/12",
  },
  blocked: { severity: "check", title: "Blocked input tax deducted", source: "SI 1992/3222 art. 5 and 7" },
  "wages-coded": { severity: "check", title: "Outside the scope, but counted", source: "VAT Notice 700/12" },
  "foreign-vat": {
    severity: "check",
    title: "Domestic rate from a supplier abroad",
    source: "VAT Notice 741A",
  },
  "unregistered-supplier": {
    severity: "check",
    title: "VAT from a supplier who is not registered",
    source: "VATA 1994 s.24",
  },
  "no-supplier-number": {
    severity: "check",
    title: "No valid tax number for a large claim",
    source: "SI 1995/2518 reg. 13 and 14",
  },
  duplicate: { severity: "check", title: "Entered twice, perhaps", source: "common practice, no source" },
  "series-gap": {
    severity: "check",
    title: "Numbers missing in a series",
    source: "Directive 2006/112/EC art. 226(2), SI 1995/2518 reg. 14, from memory",
  },
  "typed-tax": {
    severity: "check",
    title: "Typed tax differs from the calculated one",
    source: "engine design, tolerance 1 % or 5 minor units",
  },
  "tax-only": {
    severity: "check",
    title: "Tax without a value or a document number",
    source: "common practice, no source",
  },
  old: {
    severity: "check",
    title: "Tax point older than four years",
    source: "VATA 1994 s.80(4), VAT Notice 700/45",
  },
  "late-item": { severity: "check", title: "Late item", source: "SI 1995/2518 reg. 34" },
  "reverse-charge-customer": {
    severity: "check",
    title: "Reverse charge to a customer without a valid number",
    source: "VAT Notice 735",
  },
  "northern-ireland": {
    severity: "check",
    title: "EU goods boxes used outside Northern Ireland",
    source: "VAT Notice 725",
  },
  "import-certificate": {
    severity: "check",
    title: "Import VAT without its certificate",
    source: "VAT Notice 702",
  },
  "exempt-sales": {
    severity: "check",
    title: "Exempt sales, input tax deducted in full",
    source: "SI 1995/2518 reg. 101",
  },
  unusual: {
    severity: "check",
    title: "Far from the same period last year",
    source: "common practice, no source",
  },
} as const satisfies Record<string, Omit<CheckDefinition, "id">>;

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
