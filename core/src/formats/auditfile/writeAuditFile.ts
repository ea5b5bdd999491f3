import { formatAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { node, textNode, writeXml } from "../xml/writeXml.ts";
import type { XmlNode } from "../xml/writeXml.ts";
import type { AuditFile, AuditInvoice, AuditParty } from "./auditFile.ts";

const NAMESPACE = "urn:OECD:StandardAuditFile-Taxation/2.00";
/** The standard knows no type of account; this is where national variants put their groups. */
const TYPES = {
  asset: "Asset",
  liability: "Liability",
  equity: "Equity",
  income: "Sale",
  expense: "Expense",
};

/**
 * Writes an audit file as OECD SAF-T 2.0: header, chart with balances, parties, tax table, ledger, invoices.
 * @returns the XML document
 * @source OECD, Guidance for the Standard Audit File – Tax, version 2.0 (2010); from memory
 */
export function writeAuditFile(file: AuditFile): string {
  const digits = minorDigits(file.currency);
  const money = (amount: number) => formatAmount(amount, digits);
  const balance = (when: "Opening" | "Closing", amount: number) =>
    node(`${when}${amount < 0 ? "Credit" : "Debit"}Balance`, money(Math.abs(amount)));
  const totals = (debit: number, credit: number, count: number) => [
    node("NumberOfEntries", String(count)),
    node("TotalDebit", money(debit)),
    node("TotalCredit", money(credit)),
  ];
  const lines = file.transactions.flatMap((one) => one.lines);
  const sum = (amounts: readonly number[]) => amounts.reduce((total, amount) => total + amount, 0);
  return writeXml(
    node(
      "AuditFile",
      [
        node("Header", [
          node("AuditFileVersion", "2.0"),
          node("AuditFileCountry", file.country),
          node("AuditFileDateCreated", file.made),
          node("SoftwareCompanyName", "Fiscalon"),
          node("SoftwareID", "Fiscalon"),
          node("SoftwareVersion", "0.1"),
          node("Company", partyNodes(file.company, null)),
          node("DefaultCurrencyCode", file.currency),
          node("SelectionCriteria", [
            node("SelectionStartDate", file.from),
            node("SelectionEndDate", file.to),
          ]),
        ]),
        node("MasterFiles", [
          node(
            "GeneralLedgerAccounts",
            file.accounts.map((account) =>
              node("Account", [
                node("AccountID", account.code),
                node("AccountDescription", account.name),
                node("AccountType", TYPES[account.type]),
                balance("Opening", account.opening),
                balance("Closing", account.closing),
              ]),
            ),
          ),
          node(
            "Customers",
            file.customers.map((one) => node("Customer", partyNodes(one, "CustomerID"))),
          ),
          node(
            "Suppliers",
            file.suppliers.map((one) => node("Supplier", partyNodes(one, "SupplierID"))),
          ),
          node(
            "TaxTable",
            file.taxes.map((tax) =>
              node("TaxTableEntry", [
                node("TaxType", tax.levy),
                node("Description", tax.levy),
                node("TaxCodeDetails", [
                  node("TaxCode", tax.code),
                  node("Description", tax.name),
                  node("TaxPercentage", tax.percentage),
                  node("Country", file.country),
                ]),
              ]),
            ),
          ),
        ]),
        node("GeneralLedgerEntries", [
          ...totals(
            sum(lines.map(({ amount }) => Math.max(0, amount))),
            sum(lines.map(({ amount }) => Math.max(0, -amount))),
            file.transactions.length,
          ),
          node("Journal", [
            node("JournalID", "GL"),
            node("Description", "General ledger"),
            node("Type", "GL"),
            ...file.transactions.map((one) =>
              node("Transaction", [
                node("TransactionID", one.id),
                node("Period", String(Number(one.date.slice(5, 7)))),
                node("PeriodYear", one.date.slice(0, 4)),
                node("TransactionDate", one.date),
                node("Description", one.text),
                node("GLPostingDate", one.date),
                ...one.lines.map((line, index) =>
                  node("Line", [
                    node("RecordID", String(index + 1)),
                    node("AccountID", line.account),
                    textNode("Description", line.text),
                    node(line.amount < 0 ? "CreditAmount" : "DebitAmount", [
                      node("Amount", money(Math.abs(line.amount))),
                    ]),
                  ]),
                ),
              ]),
            ),
          ]),
        ]),
        node("SourceDocuments", [
          invoices("SalesInvoices", file.sales, "CustomerID", money),
          invoices("PurchaseInvoices", file.purchases, "SupplierID", money),
        ]),
      ],
      { xmlns: NAMESPACE },
    ),
  );
}

function partyNodes({ id, name, taxNumber, country }: AuditParty, idName: string | null): XmlNode[] {
  return [
    node("Name", name),
    node("Address", [textNode("Country", country)]),
    ...(taxNumber === "" ? [] : [node("TaxRegistration", [node("TaxRegistrationNumber", taxNumber)])]),
    ...(idName === null ? [] : [node(idName, id)]),
  ];
}

function invoices(
  name: "SalesInvoices" | "PurchaseInvoices",
  list: readonly AuditInvoice[],
  idName: "CustomerID" | "SupplierID",
  money: (amount: number) => string,
): XmlNode {
  const sales = name === "SalesInvoices";
  const plain = list.filter(({ credit }) => !credit).reduce((sum, { net }) => sum + net, 0);
  const credited = list.filter(({ credit }) => credit).reduce((sum, { net }) => sum + net, 0);
  return node(name, [
    node("NumberOfEntries", String(list.length)),
    node("TotalDebit", money(sales ? credited : plain)),
    node("TotalCredit", money(sales ? plain : credited)),
    ...list.map((invoice) =>
      node("Invoice", [
        node("InvoiceNo", invoice.number),
        node(sales ? "CustomerInfo" : "SupplierInfo", [node(idName, invoice.party)]),
        node("Period", String(Number(invoice.date.slice(5, 7)))),
        node("PeriodYear", invoice.date.slice(0, 4)),
        node("InvoiceDate", invoice.date),
        node("InvoiceType", invoice.credit ? "NC" : "FT"),
        ...invoice.lines.map((line, index) =>
          node("Line", [
            node("LineNumber", String(index + 1)),
            node("AccountID", line.account),
            node("Quantity", line.quantity),
            textNode("TaxPointDate", invoice.taxPoint),
            node("Description", line.text),
            node("InvoiceLineAmount", [node("Amount", money(line.net))]),
            node("DebitCreditIndicator", sales === invoice.credit ? "D" : "C"),
            ...line.taxes.map((tax) =>
              node("TaxInformation", [
                node("TaxType", tax.levy),
                node("TaxCode", tax.code),
                node("TaxPercentage", tax.percentage),
                node("TaxAmount", [node("Amount", money(tax.amount))]),
              ]),
            ),
          ]),
        ),
        node("DocumentTotals", [
          node("NetTotal", money(invoice.net)),
          node("GrossTotal", money(invoice.gross)),
        ]),
      ]),
    ),
  ]);
}
