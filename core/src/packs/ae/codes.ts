import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

/** Box 1 has a line for each emirate; `{placeTag}` is the letter of the emirate the supply is made from. */
const EMIRATE = "1{placeTag}.a +n, 1{placeTag}.v +t";
const REVERSE = "3.a +n, 3.v +t, 10.a +n, 10.v +r";

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S5", name: "Standard", direction: "sale", treatment: "standard", schedule: "STD", sale: EMIRATE, source: "Law art. 3" },
  { code: "DS", name: "Deemed supply at cost", direction: "sale", treatment: "standard", schedule: "STD", sale: EMIRATE, source: "Law art. 11" },
  { code: "PM", name: "Profit margin scheme", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: "1{placeTag}.a +b, 1{placeTag}.v +t", note: "The line's attribute `cost` holds the purchase price.", source: "Law art. 43" },
  { code: "TR", name: "Refund to tourists", direction: "sale", treatment: "adjustment", schedule: "STD", sale: "2.a +n, 2.v +t", note: "Entered negative.", source: "Law art. 68" },
  { code: "Z", name: "Zero-rated, domestic", direction: "sale", treatment: "zero", schedule: "ZERO", sale: "4.a +n", source: "Law art. 45" },
  { code: "ZX", name: "Export of goods", direction: "sale", treatment: "export", supply: "goods", schedule: "ZERO", sale: "4.a +n", source: "ER art. 30" },
  { code: "ZS", name: "Export of services", direction: "sale", treatment: "export", supply: "services", schedule: "ZERO", sale: "4.a +n", source: "ER art. 31" },
  { code: "EX", name: "Exempt", direction: "sale", treatment: "exempt", sale: "5.a +n", source: "Law art. 46" },
  { code: "OS", name: "Out of scope", direction: "sale", treatment: "out-of-scope", source: "Law art. 4" },
  { code: "RS", name: "Domestic reverse charge, supplier", direction: "sale", treatment: "reverse-charge-supplier", supply: "goods", schedule: "STD", charged: "declared-only", source: "Law art. 48; Cabinet Decisions 25/2018, 91/2023" },
  { code: "P5", name: "Standard", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "9.a +n, 9.v +r", source: "Law art. 54" },
  { code: "P5K", name: "Capital purchase", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "9.a +n, 9.v +r", source: "Law art. 60" },
  { code: "P5M", name: "Standard, mixed use, shared on the return", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "9.a +n, 9.v +r", note: "Under apportionment.", source: "ER art. 55" },
  { code: "P5E", name: "Standard, wholly for exempt supplies", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", note: "Not recovered; it counts in the share of apportionment.", source: "ER art. 55" },
  { code: "P5A", name: "Standard, apportioned", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "9.a +n, 9.v +r", inputs: ["recoverable"], note: "The attribute recoverable holds the share.", source: "ER art. 55" },
  { code: "P5N", name: "Blocked", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "ER art. 53" },
  { code: "PZ", name: "Zero-rated", direction: "purchase", treatment: "zero", schedule: "ZERO", source: "Law art. 45" },
  { code: "PX", name: "Exempt", direction: "purchase", treatment: "exempt", source: "Law art. 46" },
  { code: "PO", name: "No VAT on the paper", direction: "purchase", treatment: "out-of-scope", source: "Law art. 54" },
  { code: "PMG", name: "Stock for the margin scheme", direction: "purchase", treatment: "margin", supply: "goods", source: "ER art. 29" },
  { code: "RC", name: "Services from abroad", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: REVERSE, source: "Law art. 48" },
  { code: "RCN", name: "Services from abroad, not recoverable", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", recoverable: "0", purchase: "3.a +n, 3.v +t", source: "Law art. 48" },
  { code: "RCA", name: "Services from abroad, apportioned", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: REVERSE, inputs: ["recoverable"], note: "The attribute recoverable holds the share.", source: "Law art. 48" },
  { code: "RD", name: "Domestic reverse charge, buyer", direction: "purchase", treatment: "reverse-charge", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: REVERSE, source: "Law art. 48; Cabinet Decisions 25/2018, 91/2023" },
  { code: "IM", name: "Goods imported under own number", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "6.a +n, 6.v +t, 10.a +n, 10.v +r", source: "Law art. 48" },
  { code: "IMN", name: "Goods imported, not recoverable", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", recoverable: "0", purchase: "6.a +n, 6.v +t", source: "Law art. 48" },
  { code: "IMJ", name: "Correction of imported goods", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "7.a +n, 7.v +t, 10.a +n, 10.v +r", note: "Either sign.", source: "Returns guide" },
  { code: "IMC", name: "Import VAT paid at clearance", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", purchase: "9.a +n, 9.v +r", source: "Law art. 54; form VAT301" },
  { code: "BDS", name: "Bad debt relief of a supplier", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "1{placeTag}.j +t", note: "The amount is the tax; entered negative, or as a credit note.", source: "Law art. 64" },
  { code: "BDR", name: "Paid after bad debt relief", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "1{placeTag}.j +t", note: "The amount is the tax.", source: "Law art. 64" },
  { code: "BDQ", name: "Input tax of such a bill, paid later", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "9.j +r", note: "The amount is the tax.", source: "Law art. 55" },
  { code: "BDP", name: "Input tax repaid, unpaid for 6 months", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "9.j +r", note: "The amount is the tax; entered negative, or as a credit note.", source: "Law art. 55" },
  { code: "AJI", name: "Yearly apportionment, capital assets scheme", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "9.j +r", note: "The amount is the tax, either sign.", source: "ER art. 55, 58" },
];

export const codes = codesOfLevy("ae", "VAT", rows);
