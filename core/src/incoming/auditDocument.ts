import { textAt } from "../at.ts";
import { usualKind } from "../model/documentKinds.ts";
import { FiscalError } from "../errors.ts";
import { formatAmount } from "../money/amount.ts";
import type { DocumentInput, LineInput } from "../model/document.ts";
import type { Direction, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { codesByTax } from "./codesByTax.ts";
import type { AuditInvoice, AuditLine } from "../formats/auditfile/auditFile.ts";

/** What turning invoices of an audit file into documents needs of the set-up. */
export interface AuditReading {
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  accounts: ReadonlySet<string>;
  /** For codes of the file that the set-up does not have: what a person chose. */
  chosen: Readonly<Record<string, string>>;
  /** Account of lines whose account the chart lacks; null for the usual one. */
  account: string | null;
  /** The code most lines of the side bear; of several that fit it is the one. */
  usual: string | null;
  digits: number;
}

/**
 * An invoice of an audit file as a document: the file's own code where the set-up has it, otherwise the chosen one, or
 * the one whose rate gives the tax.
 * @throws FiscalError `formats/auditfile-code` that names the code, with the line as path
 */
export function invoiceDocument(
  invoice: AuditInvoice,
  direction: Direction,
  reading: AuditReading,
): DocumentInput & { number: string } {
  const on = invoice.taxPoint ?? invoice.date;
  return {
    kind: usualKind(direction, invoice.credit),
    number: invoice.number,
    date: invoice.date,
    ...(invoice.taxPoint === null ? {} : { taxPoint: invoice.taxPoint }),
    prices: "exclusive",
    lines: invoice.lines.map((line, index): LineInput => {
      const account = reading.accounts.has(line.account) ? line.account : reading.account;
      return {
        ...(line.text === "" ? {} : { text: line.text }),
        amount: formatAmount(line.net, reading.digits),
        ...(account === null ? {} : { account }),
        ...codeOf(line, direction, on, reading, index),
      };
    }),
  };
}

function codeOf(
  { taxes, net }: AuditLine,
  direction: Direction,
  on: string,
  { codes, schedules, chosen, usual }: AuditReading,
  index: number,
): Pick<LineInput, "code" | "codeReason"> {
  const named = textAt(
    taxes.map(({ code }) => code).filter((code) => code !== ""),
    0,
  );
  const wanted = chosen[named] ?? named;
  const code = codes.get(wanted);
  if (code && (code.direction === "both" || code.direction === direction))
    return { code: wanted, codeReason: "code in the audit file" };
  const tax = taxes.reduce((sum, { amount }) => sum + amount, 0);
  const told = {
    amount: Math.abs(net),
    inclusive: false,
    tax: Math.abs(tax),
    taxes: Object.fromEntries(taxes.map(({ levy, amount }) => [levy, amount])),
    rate: "",
  };
  const search = { direction, on, circumstances: {}, codes, schedules };
  const fitting = tax === 0 ? [] : codesByTax(told, search);
  const byTax = fitting.find((one) => one.code === usual) ?? fitting[0];
  if (byTax) return { code: byTax.code, codeReason: "the rate that gives the tax in the audit file" };
  if (taxes.length === 0 && named === "") return { code: null };
  throw new FiscalError(
    "formats/auditfile-code",
    `The set-up has no code ${named || "for this tax"}. Choose one under “How the file is read”.`,
    `lines[${index}].${named}`,
  );
}
