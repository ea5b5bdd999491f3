import { formatAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { node, textNode, writeElement, writeXml } from "../xml/writeXml.ts";
import type { XmlNode } from "../xml/writeXml.ts";
import type { AuditFile, AuditInvoice, AuditParty, AuditTransaction } from "./auditFile.ts";

const NAMESPACE = "urn:OECD:StandardAuditFile-Taxation/2.00";
/** The standard knows no type of account; this is where national variants put their groups. */
const TYPES = {
  asset: "Asset",
  liability: "Liability",
  equity: "Equity",
  income: "Sale",
  expense: "Expense",
};

/** An entry, a sale and a purchase stand so deep in the document. */
const DEPTH = 3;
/** Empty elements hold their places in the text of everything else. */
const PLACES = / *<(?:Transaction|Invoice)\/>\n/;

/** How many there are, and the sums of both sides in minor units. */
export interface AuditTotals {
  count: number;
  debit: number;
  credit: number;
}

/** An audit file without what grows with the books, of which only count and sums are known. */
export type AuditFrame = Omit<AuditFile, "transactions" | "sales" | "purchases"> & {
  totals: Readonly<Record<"transactions" | "sales" | "purchases", AuditTotals>>;
};

/** How a file is written bit by bit: texts that stand between its lists, and the text of each element of them. */
export interface AuditParts {
  /** In their order: before the transactions, before the sales, before the purchases, after them. */
  frame: readonly [string, string, string, string];
  transaction: (one: AuditTransaction) => string;
  sale: (one: AuditInvoice) => string;
  purchase: (one: AuditInvoice) => string;
}

/**
 * The parts of an audit file as OECD SAF-T 2.0: header, chart with balances, parties, tax table, ledger, invoices.
 * @source OECD, Guidance for the Standard Audit File – Tax, version 2.0 (2010); from memory
 */
export function auditFileParts(file: AuditFrame): AuditParts {
  const digits = minorDigits(file.currency);
  const money = (amount: number) => formatAmount(amount, digits);
  const [first = "", second = "", third = "", last = ""] = writeXml(frameOf(file, money)).split(PLACES);
  return {
    frame: [first, second, third, last],
    transaction: (one) => writeElement(transaction(one, money), DEPTH),
    sale: (one) => writeElement(invoiceNode(one, "sale", money), DEPTH),
    purchase: (one) => writeElement(invoiceNode(one, "purchase", money), DEPTH),
  };
}

/**
 * A whole audit file as text.
 * @returns the XML document
 */
export function writeAuditFile(file: AuditFile): string {
  const { frame, ...of } = auditFileParts({ ...file, totals: totalsOf(file) });
  return [
    frame[0],
    ...file.transactions.map(of.transaction),
    frame[1],
    ...file.sales.map(of.sale),
    frame[2],
    ...file.purchases.map(of.purchase),
    frame[3],
  ].join("");
}

function totalsOf({ transactions, sales, purchases }: AuditFile): AuditFrame["totals"] {
  const sum = (amounts: readonly number[]) => amounts.reduce((total, amount) => total + amount, 0);
  const amounts = transactions.flatMap(({ lines }) => lines.map(({ amount }) => amount));
  const nets = (list: readonly AuditInvoice[], credit: boolean) =>
    sum(list.filter((one) => one.credit === credit).map(({ net }) => net));
  return {
    transactions: {
      count: transactions.length,
      debit: sum(amounts.map((amount) => Math.max(0, amount))),
      credit: sum(amounts.map((amount) => Math.max(0, -amount))),
    },
    sales: { count: sales.length, debit: nets(sales, true), credit: nets(sales, false) },
    purchases: { count: purchases.length, debit: nets(purchases, false), credit: nets(purchases, true) },
  };
}

function frameOf(file: AuditFrame, money: (amount: number) => string): XmlNode {
  const balance = (when: "Opening" | "Closing", amount: number) =>
    node(`${when}${amount < 0 ? "Credit" : "Debit"}Balance`, money(Math.abs(amount)));
  const totals = ({ debit, credit, count }: AuditTotals) => [
    node("NumberOfEntries", String(count)),
    node("TotalDebit", money(debit)),
    node("TotalCredit", money(credit)),
  ];
  return node(
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
        node("SelectionCriteria", [node("SelectionStartDate", file.from), node("SelectionEndDate", file.to)]),
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
        ...totals(file.totals.transactions),
        node("Journal", [
          node("JournalID", "GL"),
          node("Description", "General ledger"),
          node("Type", "GL"),
          node("Transaction", []),
        ]),
      ]),
      node("SourceDocuments", [
        node("SalesInvoices", [...totals(file.totals.sales), node("Invoice", [])]),
        node("PurchaseInvoices", [...totals(file.totals.purchases), node("Invoice", [])]),
      ]),
    ],
    { xmlns: NAMESPACE },
  );
}

function transaction(one: AuditTransaction, money: (amount: number) => string): XmlNode {
  return node("Transaction", [
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
  ]);
}

function partyNodes({ id, name, taxNumber, country }: AuditParty, idName: string | null): XmlNode[] {
  return [
    node("Name", name),
    node("Address", [textNode("Country", country)]),
    ...(taxNumber === "" ? [] : [node("TaxRegistration", [node("TaxRegistrationNumber", taxNumber)])]),
    ...(idName === null ? [] : [node(idName, id)]),
  ];
}

function invoiceNode(
  invoice: AuditInvoice,
  direction: "sale" | "purchase",
  money: (amount: number) => string,
): XmlNode {
  const isSale = direction === "sale";
  return node("Invoice", [
    node("InvoiceNo", invoice.number),
    isSale
      ? node("CustomerInfo", [node("CustomerID", invoice.party)])
      : node("SupplierInfo", [node("SupplierID", invoice.party)]),
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
        node("DebitCreditIndicator", isSale === invoice.credit ? "D" : "C"),
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
    node("DocumentTotals", [node("NetTotal", money(invoice.net)), node("GrossTotal", money(invoice.gross))]),
  ]);
}
