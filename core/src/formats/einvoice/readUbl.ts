import { isCalendarDate } from "../../calendar/date.ts";
import { FiscalError, withinField } from "../../errors.ts";
import { parseAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { attribute, element, elements, textAt } from "../xml/readXml.ts";
import type { XmlElement } from "../xml/readXml.ts";
import type { EInvoice, EInvoiceParty, TaxCategory } from "./eInvoice.ts";

const CATEGORIES = new Set(["S", "Z", "E", "AE", "K", "G", "O", "L", "M"]);

/**
 * Reads a UBL 2.1 invoice or credit note as EN 16931 profiles it.
 * @param xml as readXml gives it
 * @throws FiscalError `formats/einvoice-missing` with the business term that is missing, `formats/bad-date`, and what
 *   reading amounts throws
 * @source EN 16931-3-2 (syntax binding to UBL); from memory
 */
export function readUbl(xml: XmlElement): EInvoice {
  const credit = xml["CreditNote"] !== undefined;
  const root = element(xml, credit ? "CreditNote" : "Invoice");
  if (!root) throw missing("an invoice or credit note", "");
  const currency = required(root, "DocumentCurrencyCode", "the currency (BT-5)");
  const digits = minorDigits(currency);
  const money = (of: XmlElement | undefined, path: string): number => {
    const text = textAt(of, path);
    return text === "" ? 0 : withinField(path, () => parseAmount(cutZeros(text), digits));
  };
  const totals = element(root, "LegalMonetaryTotal");
  if (!totals) throw missing("the totals (BG-22)", "LegalMonetaryTotal");
  if (elements(root, credit ? "CreditNoteLine" : "InvoiceLine").length === 0)
    throw missing("any line (BG-25)", "");
  const type = textAt(root, credit ? "CreditNoteTypeCode" : "InvoiceTypeCode");
  return {
    credit: credit || type === "381",
    number: required(root, "ID", "the number (BT-1)"),
    date: dateAt(root, "IssueDate", "the date (BT-2)"),
    taxPoint: optionalDate(root, "TaxPointDate"),
    due: optionalDate(root, credit ? "PaymentMeans.PaymentDueDate" : "DueDate"),
    currency,
    note: textAt(root, "Note"),
    corrects: textAt(root, "BillingReference.InvoiceDocumentReference.ID"),
    seller: partyOf(element(root, "AccountingSupplierParty.Party")),
    buyer: partyOf(element(root, "AccountingCustomerParty.Party")),
    lines: elements(root, credit ? "CreditNoteLine" : "InvoiceLine").map((line) => {
      const quantity = element(line, credit ? "CreditedQuantity" : "InvoicedQuantity");
      return {
        id: textAt(line, "ID"),
        name: textAt(line, "Item.Name") || textAt(line, "Item.Description"),
        quantity: textOf(quantity) || "1",
        unit: attribute(quantity, "unitCode"),
        price: textAt(line, "Price.PriceAmount"),
        per: textAt(line, "Price.BaseQuantity") || "1",
        net: money(line, "LineExtensionAmount"),
        ...categoryOf(element(line, "Item.ClassifiedTaxCategory")),
      };
    }),
    allowances: elements(root, "AllowanceCharge").map((one) => ({
      charge: textAt(one, "ChargeIndicator") === "true",
      amount: money(one, "Amount"),
      reason: textAt(one, "AllowanceChargeReason"),
      ...categoryOf(element(one, "TaxCategory")),
    })),
    taxes: elements(mainTaxTotal(root, currency), "TaxSubtotal").map((row) => ({
      taxable: money(row, "TaxableAmount"),
      tax: money(row, "TaxAmount"),
      reason: textAt(row, "TaxCategory.TaxExemptionReason"),
      ...categoryOf(element(row, "TaxCategory")),
    })),
    totals: {
      lines: money(totals, "LineExtensionAmount"),
      allowances: money(totals, "AllowanceTotalAmount"),
      charges: money(totals, "ChargeTotalAmount"),
      exclusive: money(totals, "TaxExclusiveAmount"),
      tax: money(mainTaxTotal(root, currency), "TaxAmount"),
      inclusive: money(totals, "TaxInclusiveAmount"),
      prepaid: money(totals, "PrepaidAmount") - money(totals, "PayableRoundingAmount"),
      payable: money(totals, "PayableAmount"),
    },
  };
}

/** There may be a second total of tax, in the currency of accounting. */
function mainTaxTotal(root: XmlElement, currency: string): XmlElement | undefined {
  const all = elements(root, "TaxTotal");
  return all.find((one) => attribute(element(one, "TaxAmount"), "currencyID") === currency) ?? all[0];
}

function textOf(of: XmlElement | undefined): string {
  const text = of?.["#text"];
  return typeof text === "string" ? text : "";
}

function categoryOf(of: XmlElement | undefined): { category: TaxCategory; rate: string } {
  const category = textAt(of, "ID");
  if (!CATEGORIES.has(category)) {
    throw new FiscalError(
      "formats/einvoice-category",
      `"${category}" is no category of VAT an e-invoice may carry.`,
      "TaxCategory",
    );
  }
  const rate = cutZeros(textAt(of, "Percent") || "0");
  if (!/^\d{1,3}(\.\d{1,6})?$/.test(rate))
    throw new FiscalError("formats/einvoice-rate", `"${rate}" is no rate of tax.`, "TaxCategory");
  return { category: category as TaxCategory, rate };
}

function partyOf(party: XmlElement | undefined): EInvoiceParty {
  const numbers = elements(party, "PartyTaxScheme");
  const vat = numbers.find((one) => textAt(one, "TaxScheme.ID") === "VAT") ?? numbers[0];
  return {
    name: textAt(party, "PartyLegalEntity.RegistrationName") || textAt(party, "PartyName.Name"),
    taxNumber: textAt(vat, "CompanyID"),
    country: textAt(party, "PostalAddress.Country.IdentificationCode"),
    region: textAt(party, "PostalAddress.CountrySubentity"),
  };
}

function dateAt(of: XmlElement, path: string, what: string): string {
  const date = required(of, path, what).slice(0, 10);
  if (isCalendarDate(date)) return date;
  throw new FiscalError("formats/bad-date", `"${date}" is no date that exists.`, path);
}

function optionalDate(of: XmlElement, path: string): string | null {
  return textAt(of, path) === "" ? null : dateAt(of, path, path);
}

function required(of: XmlElement, path: string, what: string): string {
  const text = textAt(of, path);
  if (text === "") throw missing(what, path);
  return text;
}

function missing(what: string, path: string): FiscalError {
  return new FiscalError(
    "formats/einvoice-missing",
    `The e-invoice lacks ${what}. Ask whoever sent it for a complete one.`,
    path,
  );
}

function cutZeros(text: string): string {
  return text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
}
