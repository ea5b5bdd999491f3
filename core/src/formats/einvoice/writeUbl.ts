import { formatAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { node, textNode, writeXml } from "../xml/writeXml.ts";
import type { XmlNode } from "../xml/writeXml.ts";
import type { EInvoice, EInvoiceParty, TaxCategory } from "./eInvoice.ts";

const CUSTOMIZATION = "urn:cen.eu:en16931:2017";
const NAMESPACE = "urn:oasis:names:specification:ubl:schema:xsd:";

/**
 * Writes an invoice or credit note as UBL 2.1 in the profile of EN 16931.
 * @returns the XML document
 * @source EN 16931-3-2; OASIS UBL 2.1, order of elements; from memory
 */
export function writeUbl(invoice: EInvoice): string {
  const { credit, currency, lines, totals } = invoice;
  const digits = minorDigits(currency);
  const money = (name: string, amount: number) =>
    node(`cbc:${name}`, formatAmount(amount, digits), { currencyID: currency });
  const root = credit ? "CreditNote" : "Invoice";
  return writeXml(
    node(
      root,
      [
        node("cbc:CustomizationID", CUSTOMIZATION),
        node("cbc:ID", invoice.number),
        node("cbc:IssueDate", invoice.date),
        credit ? null : textNode("cbc:DueDate", invoice.due),
        credit ? textNode("cbc:TaxPointDate", invoice.taxPoint) : null,
        node(`cbc:${root}TypeCode`, credit ? "381" : "380"),
        textNode("cbc:Note", invoice.note),
        credit ? null : textNode("cbc:TaxPointDate", invoice.taxPoint),
        node("cbc:DocumentCurrencyCode", currency),
        invoice.corrects === ""
          ? null
          : node("cac:BillingReference", [
              node("cac:InvoiceDocumentReference", [node("cbc:ID", invoice.corrects)]),
            ]),
        node("cac:AccountingSupplierParty", [party(invoice.seller)]),
        node("cac:AccountingCustomerParty", [party(invoice.buyer)]),
        ...invoice.allowances.map((one) =>
          node("cac:AllowanceCharge", [
            node("cbc:ChargeIndicator", String(one.charge)),
            textNode("cbc:AllowanceChargeReason", one.reason),
            money("Amount", one.amount),
            taxCategory("cac:TaxCategory", one),
          ]),
        ),
        node("cac:TaxTotal", [
          money("TaxAmount", totals.tax),
          ...invoice.taxes.map((row) =>
            node("cac:TaxSubtotal", [
              money("TaxableAmount", row.taxable),
              money("TaxAmount", row.tax),
              taxCategory("cac:TaxCategory", row, row.reason),
            ]),
          ),
        ]),
        node("cac:LegalMonetaryTotal", [
          money("LineExtensionAmount", totals.lines),
          money("TaxExclusiveAmount", totals.exclusive),
          money("TaxInclusiveAmount", totals.inclusive),
          totals.allowances === 0 ? null : money("AllowanceTotalAmount", totals.allowances),
          totals.charges === 0 ? null : money("ChargeTotalAmount", totals.charges),
          totals.prepaid === 0 ? null : money("PrepaidAmount", totals.prepaid),
          money("PayableAmount", totals.payable),
        ]),
        ...lines.map((line) =>
          node(`cac:${root}Line`, [
            node("cbc:ID", line.id),
            node(`cbc:${credit ? "Credited" : "Invoiced"}Quantity`, line.quantity, {
              unitCode: line.unit || "C62",
            }),
            money("LineExtensionAmount", line.net),
            node("cac:Item", [node("cbc:Name", line.name), taxCategory("cac:ClassifiedTaxCategory", line)]),
            node("cac:Price", [
              node("cbc:PriceAmount", line.price, { currencyID: currency }),
              line.per === "1" ? null : node("cbc:BaseQuantity", line.per, { unitCode: line.unit || "C62" }),
            ]),
          ]),
        ),
      ],
      {
        xmlns: `${NAMESPACE}${root}-2`,
        "xmlns:cac": `${NAMESPACE}CommonAggregateComponents-2`,
        "xmlns:cbc": `${NAMESPACE}CommonBasicComponents-2`,
      },
    ),
  );
}

function party({ name, taxNumber, country, region }: EInvoiceParty): XmlNode {
  return node("cac:Party", [
    node("cac:PostalAddress", [
      textNode("cbc:CountrySubentity", region),
      country === "" ? null : node("cac:Country", [node("cbc:IdentificationCode", country)]),
    ]),
    taxNumber === ""
      ? null
      : node("cac:PartyTaxScheme", [
          node("cbc:CompanyID", taxNumber),
          node("cac:TaxScheme", [node("cbc:ID", "VAT")]),
        ]),
    node("cac:PartyLegalEntity", [node("cbc:RegistrationName", name || "unnamed")]),
  ]);
}

function taxCategory(
  name: string,
  { category, rate }: { category: TaxCategory; rate: string },
  reason = "",
): XmlNode {
  return node(name, [
    node("cbc:ID", category),
    category === "O" ? null : node("cbc:Percent", rate),
    textNode("cbc:TaxExemptionReason", reason),
    node("cac:TaxScheme", [node("cbc:ID", "VAT")]),
  ]);
}
