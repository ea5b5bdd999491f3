import { addMonths } from "@fiscalon/core/calendar/date";
import { beyondTolerance } from "@fiscalon/core/tax/typedTolerance";
import { displayAmount } from "@fiscalon/core/money/amount";
import { documentKey, finding, taxOf } from "@fiscalon/core/findings/catalogue";
import type { CheckId } from "@fiscalon/core/findings/catalogue";
import type { Finding } from "@fiscalon/core/model/finding";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { CandidateLine } from "./queries.ts";

/** What the line checks need to know of the period. */
export interface CheckContext {
  pack: JurisdictionPack;
  digits: number;
  from: string;
}

/** A check over lines: which ones are candidates, in SQL, and what is said about each that is a finding. */
export interface LineCheck {
  id: CheckId;
  /** The packs it is for, where it is not for all. */
  packs?: readonly string[];
  /** SQL over f, d, c, l and a, as in candidateLines. */
  condition: string;
  /** What is bound as $3 of the condition. */
  parameter?: (context: CheckContext) => string | number;
  judge: (line: CandidateLine, context: CheckContext) => string | null;
}

const where = (line: CandidateLine) => `${line.number}${line.party === "" ? "" : `, ${line.party}`}`;
const minor = (line: CandidateLine, amount: number, context: CheckContext) =>
  taxOf(line.levy, amount, context.digits);

/** Claims of up to 250.00 go without a look at the supplier's number where the pack does not say otherwise. */
const USUAL_CLAIM = 250;

export const LINE_CHECKS: readonly LineCheck[] = [
  {
    id: "self-assessed",
    packs: ["gb", "ie"],
    condition: `f.charged = 'self-assessed' AND f.tax <> 0
      AND (f.tags NOT LIKE '%+t%' OR (f.recoverable <> 0 AND f.tags NOT LIKE '%+r%'))`,
    judge: (line, context) =>
      `${where(line)}: code ${line.code} puts the ${minor(line, line.tax, context)} on one side of the return only. Correct the code.`,
  },
  {
    id: "box-6-purchase",
    packs: ["gb"],
    condition: `f.direction = 'purchase' AND f.treatment = 'import' AND f.tags LIKE '%6 +n%'`,
    judge: (line) =>
      `${where(line)}: code ${line.code} counts an import as turnover. Imports do not belong in box 6.`,
  },
  {
    id: "blocked",
    condition: `f.direction = 'purchase' AND f.recoverable <> 0
      AND (a.topic IN ('entertaining', 'cars') OR (a.topic = 'car-lease' AND f.recoverable = f.tax))`,
    judge: (line, context) =>
      line.topic === "car-lease"
        ? `${where(line)}: ${minor(line, line.recoverable, context)} on a car lease is deducted in full; with any private use it is half.`
        : `${where(line)}: ${minor(line, line.recoverable, context)} posted to ${line.accountName} is deducted; it is blocked unless an exception applies.`,
  },
  {
    id: "wages-coded",
    condition: `a.topic IN ('wages', 'dividends', 'loans', 'rates') AND f.tags <> ''`,
    judge: (line) =>
      `${where(line)}: ${line.accountName} is outside the scope, but code ${line.code} counts it on the return. Use a code that lands nowhere.`,
  },
  {
    id: "foreign-vat",
    condition: `f.direction = 'purchase' AND f.charged = 'charged' AND f.tax <> 0 AND c.country IS NOT NULL
      AND f.treatment IN ('standard', 'reduced')`,
    judge: (line, context) =>
      line.partyCountry === context.pack.country
        ? null
        : `${where(line)} is in ${line.partyCountry}, but ${minor(line, line.tax, context)} is deducted as if charged here. Tax of another country is not reclaimed on this return; services from abroad bear a reverse charge.`,
  },
  {
    id: "unregistered-supplier",
    condition: `f.direction = 'purchase' AND f.charged = 'charged' AND f.tax <> 0 AND c.registered = 0`,
    judge: (line, context) =>
      `${where(line)} is not registered, but ${minor(line, line.tax, context)} is deducted. Ask for a proper invoice, or use a code without tax.`,
  },
  {
    id: "no-supplier-number",
    condition: `f.direction = 'purchase' AND f.charged = 'charged' AND f.recoverable <> 0 AND f.treatment <> 'import'
      AND d.gross > $3 AND coalesce(c.registered, 1) = 1
      AND f.line = (SELECT min(x.line) FROM facts x WHERE x.document_id = f.document_id AND x.live = 1 AND x.recoverable <> 0)`,
    parameter: ({ pack, digits }) => pack.claims?.numberAbove ?? USUAL_CLAIM * 10 ** digits,
    judge: (line, context) => {
      if (line.partyCountry !== null && line.partyCountry !== context.pack.country) return null;
      const number = line.partyNumber ?? "";
      if (number === "") {
        return `${where(line)}: ${minor(line, line.documentTax, context)} is deducted without the supplier's ${context.pack.numberName}. Add it to the contact.`;
      }
      const check = context.pack.checkNumber(number);
      return check.ok ? null : `${where(line)}: ${check.message}`;
    },
  },
  {
    id: "no-region",
    condition: "f.tags LIKE '%?%'",
    judge: (line, context) =>
      `${where(line)}: the return asks for the region of the supply, and it is not known, so ${minor(line, line.tax, context)} is in no box. Choose a place with its region on the document, or set the region of the contact and save the document again.`,
  },
  {
    id: "typed-tax",
    condition: `(l.typed_tax IS NOT NULL OR d.typed_tax IS NOT NULL) AND f.net <> 0 AND f.rate IS NOT NULL`,
    judge: (line, context) => {
      if (!beyondTolerance(line.tax, line.calculated)) return null;
      return `${where(line)}: typed ${minor(line, line.tax, context)}; calculated ${displayAmount(line.calculated, context.digits)}.`;
    },
  },
  {
    id: "tax-only",
    condition: `f.net = 0 AND f.tax <> 0 AND f.treatment <> 'adjustment' AND coalesce(json_extract(l.attributes, '$.document'), json_extract(l.attributes, '$.certificate'), '') = ''`,
    judge: (line, context) =>
      `${where(line)}: ${minor(line, line.tax, context)} without a value, and no import or tax document number on the line.`,
  },
  {
    id: "old",
    condition: "f.tax_point < $3",
    parameter: oldestClaim,
    judge: (line, { pack }) =>
      `${where(line)}: the tax point ${line.taxPoint} is more than ${pack.correction.yearsBack} years before the period. It cannot be claimed any more.`,
  },
  {
    id: "reverse-charge-customer",
    condition: `f.treatment = 'reverse-charge-supplier'`,
    judge: (line, context) => {
      const check = context.pack.checkNumber(line.partyNumber ?? "");
      return check.ok
        ? null
        : `${where(line)}: a reverse charge needs a registered customer, and there is no valid ${context.pack.numberName} on the contact.`;
    },
  },
  {
    id: "import-certificate",
    packs: ["gb"],
    condition: `f.code = 'IMP' AND coalesce(json_extract(l.attributes, '$.certificate'), '') = ''`,
    judge: (line, context) =>
      `${where(line)}: ${minor(line, line.tax, context)} paid at the border, but no certificate (C79) is noted on the line.`,
  },
];

/** The oldest tax point that can still be claimed. */
function oldestClaim(context: CheckContext): string {
  return addMonths(context.from, -12 * context.pack.correction.yearsBack);
}

export function judged(check: LineCheck, lines: readonly CandidateLine[], context: CheckContext): Finding[] {
  return lines.flatMap((line) => {
    const text = check.judge(line, context);
    return text === null ? [] : [finding(check.id, [documentKey(line.document), line.line], text, line)];
  });
}
