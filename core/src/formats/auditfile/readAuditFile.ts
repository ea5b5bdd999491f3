import { isCalendarDate } from "../../calendar/date.ts";
import { FiscalError, withinField } from "../../errors.ts";
import type { AccountType } from "../../model/account.ts";
import { parseAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { element, elements, textAt } from "../xml/readXml.ts";
import type { XmlElement } from "../xml/readXml.ts";
import type { AuditFile, AuditInvoice, AuditLine, AuditParty } from "./auditFile.ts";

const TYPES: Readonly<Record<string, AccountType>> = {
  asset: "asset",
  bank: "asset",
  liability: "liability",
  equity: "equity",
  sale: "income",
  income: "income",
  revenue: "income",
  expense: "expense",
};

/**
 * Reads an OECD SAF-T audit file, version 1 or 2, also national variants that keep the names of the standard.
 * @param xml as readXml gives it
 * @throws FiscalError `formats/auditfile-missing` with what is missing, `formats/bad-date`, and what reading amounts
 *   throws, with the path of the element
 * @source OECD, Guidance for the Standard Audit File – Tax, version 2.0 (2010); from memory
 */
export function readAuditFile(xml: XmlElement): AuditFile {
  const root = element(xml, "AuditFile");
  const header = element(root, "Header");
  if (!root || !header)
    throw new FiscalError("formats/auditfile-missing", "The audit file has no header.", "AuditFile.Header");
  const currency = textAt(header, "DefaultCurrencyCode") || textAt(header, "CurrencyCode");
  if (currency === "") {
    throw new FiscalError(
      "formats/auditfile-missing",
      "The audit file names no currency.",
      "Header.DefaultCurrencyCode",
    );
  }
  const digits = minorDigits(currency);
  const money = (of: XmlElement | undefined, path: string): number => {
    const text = textAt(of, path);
    return text === "" ? 0 : withinField(path, () => parseAmount(cutZeros(text), digits));
  };
  const invoicesAt = (path: string, idName: string) =>
    elements(root, `SourceDocuments.${path}.Invoice`).map((one) =>
      invoiceOf(one, idName, path === "SalesInvoices" ? "C" : "D", money),
    );
  return {
    country: textAt(header, "AuditFileCountry"),
    currency,
    made: textAt(header, "AuditFileDateCreated") || textAt(header, "DateCreated"),
    company: partyOf(element(header, "Company"), ""),
    from: textAt(header, "SelectionCriteria.SelectionStartDate") || textAt(header, "StartDate"),
    to: textAt(header, "SelectionCriteria.SelectionEndDate") || textAt(header, "EndDate"),
    accounts: elements(root, "MasterFiles.GeneralLedgerAccounts.Account").map((one) => ({
      code: required(one, "AccountID"),
      name: textAt(one, "AccountDescription") || textAt(one, "AccountID"),
      type: typeOf(textAt(one, "AccountType") || textAt(one, "GroupingCategory"), textAt(one, "AccountID")),
      opening: money(one, "OpeningDebitBalance") - money(one, "OpeningCreditBalance") || 0,
      closing: money(one, "ClosingDebitBalance") - money(one, "ClosingCreditBalance") || 0,
    })),
    customers: partiesAt(root, "MasterFiles.Customers.Customer", "CustomerID"),
    suppliers: partiesAt(root, "MasterFiles.Suppliers.Supplier", "SupplierID"),
    taxes: elements(root, "MasterFiles.TaxTable.TaxTableEntry").flatMap((entry) =>
      elements(entry, "TaxCodeDetails").map((code) => ({
        levy: textAt(entry, "TaxType"),
        code: textAt(code, "TaxCode"),
        name: textAt(code, "Description"),
        percentage: cutZeros(textAt(code, "TaxPercentage") || "0"),
      })),
    ),
    transactions: elements(root, "GeneralLedgerEntries.Journal.Transaction").map((one) => ({
      id: required(one, "TransactionID"),
      date: dateAt(one, textAt(one, "GLPostingDate") ? "GLPostingDate" : "TransactionDate"),
      text: textAt(one, "Description"),
      lines: [
        ...elements(one, "Line"),
        ...elements(one, "Lines.DebitLine"),
        ...elements(one, "Lines.CreditLine"),
      ].map((line) => ({
        account: required(line, "AccountID"),
        text: textAt(line, "Description"),
        amount: sideOf(line, "Debit", money) - sideOf(line, "Credit", money) || 0,
      })),
    })),
    sales: invoicesAt("SalesInvoices", "CustomerInfo.CustomerID"),
    purchases: invoicesAt("PurchaseInvoices", "SupplierInfo.SupplierID"),
  };
}

type Money = (of: XmlElement | undefined, path: string) => number;

/** `DebitAmount.Amount` in version 2, `DebitAmount` in version 1. */
function sideOf(line: XmlElement, side: "Debit" | "Credit", money: Money): number {
  return money(line, `${side}Amount.Amount`) || money(line, `${side}Amount`);
}

/**
 * @param usual the side on which lines of such an invoice stand; a line on the other side takes off, and an invoice whose
 *   lines take off in sum is a credit note
 */
function invoiceOf(one: XmlElement, idPath: string, usual: "D" | "C", money: Money): AuditInvoice {
  const lines = elements(one, "Line").map((line) => lineOf(line, usual, money));
  const type = textAt(one, "InvoiceType");
  const gross = money(one, "DocumentTotals.GrossTotal");
  const sum = lines.reduce(
    (total, { net, taxes }) => taxes.reduce((all, tax) => all + tax.amount, total + net),
    0,
  );
  const named = /^(NC|CN|381|credit)/i.test(type);
  const credit = named || gross < 0 || sum < 0;
  const taxPoint = textAt(elements(one, "Line")[0], "TaxPointDate");
  const status =
    textAt(one, "DocumentStatus.InvoiceStatus") || textAt(one, "InvoiceStatus") || textAt(one, "Status");
  return {
    number: required(one, "InvoiceNo"),
    date: dateAt(one, "InvoiceDate"),
    taxPoint: isCalendarDate(taxPoint) ? taxPoint : null,
    party: textAt(one, idPath) || textAt(one, idPath.split(".").at(-1) ?? idPath),
    credit,
    annulled: /^(A|annulled|cancelled|canceled|void)$/i.test(status),
    lines: sum < 0 ? lines.map(turned) : lines,
    net: Math.abs(money(one, "DocumentTotals.NetTotal")),
    gross: Math.abs(gross),
  };
}

function turned(line: AuditLine): AuditLine {
  return {
    ...line,
    net: -line.net || 0,
    taxes: line.taxes.map((tax) => ({ ...tax, amount: -tax.amount || 0 })),
  };
}

function lineOf(line: XmlElement, usual: "D" | "C", money: Money): AuditLine {
  const [debit, credit] = [sideOf(line, "Debit", money), sideOf(line, "Credit", money)];
  const told = money(line, "InvoiceLineAmount.Amount") || money(line, "InvoiceLineAmount");
  const indicator = textAt(line, "DebitCreditIndicator").toUpperCase();
  const side = indicator || (debit === credit ? usual : debit !== 0 ? "D" : "C");
  const sign = side === usual ? 1 : -1;
  return {
    account: textAt(line, "AccountID"),
    text: textAt(line, "Description") || textAt(line, "ProductDescription"),
    quantity: cutZeros(textAt(line, "Quantity") || "1"),
    net: sign * (told || debit || credit) || 0,
    taxes: [...elements(line, "TaxInformation"), ...elements(line, "Tax")].map((tax) => ({
      levy: textAt(tax, "TaxType"),
      code: textAt(tax, "TaxCode"),
      percentage: cutZeros(textAt(tax, "TaxPercentage") || "0"),
      amount: sign * (money(tax, "TaxAmount.Amount") || money(tax, "TaxAmount")) || 0,
    })),
  };
}

function partiesAt(root: XmlElement, path: string, idName: string): AuditParty[] {
  return elements(root, path).map((one) => partyOf(one, idName));
}

function partyOf(one: XmlElement | undefined, idName: string): AuditParty {
  return {
    id: idName === "" ? "" : textAt(one, idName),
    name: textAt(one, "Name") || textAt(one, "CompanyName"),
    taxNumber: textAt(one, "TaxRegistration.TaxRegistrationNumber") || textAt(one, "CustomerTaxID"),
    country: textAt(one, "Address.Country") || textAt(one, "BillingAddress.Country"),
  };
}

/** Where the file does not say, by the first digit as most charts have it. */
function typeOf(text: string, code: string): AccountType {
  const known = TYPES[text.toLowerCase()];
  if (known) return known;
  const first = { "0": "asset", "1": "asset", "2": "liability", "3": "equity", "4": "income" } as const;
  return first[code[0] as keyof typeof first] ?? "expense";
}

function required(of: XmlElement, path: string): string {
  const text = textAt(of, path);
  if (text !== "") return text;
  throw new FiscalError("formats/auditfile-missing", `An element ${path} is missing or empty.`, path);
}

function dateAt(of: XmlElement, path: string): string {
  const date = textAt(of, path).slice(0, 10);
  if (isCalendarDate(date)) return date;
  throw new FiscalError("formats/bad-date", `"${date}" in ${path} is no date that exists.`, path);
}

function cutZeros(text: string): string {
  return text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
}
