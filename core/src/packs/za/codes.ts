import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S15", name: "Standard", direction: "sale", treatment: "standard", schedule: "STD", sale: "1 +g", source: "Act s. 7(1)" },
  { code: "S15K", name: "Capital goods sold", direction: "sale", treatment: "standard", schedule: "STD", sale: "1A +g", source: "Act s. 7(1)" },
  { code: "S14", name: "Supplied at 14 %, reported after March 2018", direction: "sale", treatment: "standard", schedule: "OLD", sale: "12 +t", source: "Act s. 67A" },
  { code: "Z", name: "Zero rate, domestic", direction: "sale", treatment: "zero", schedule: "ZERO", sale: "2 +n", source: "Act s. 11" },
  { code: "ZX", name: "Export of goods", direction: "sale", treatment: "export", supply: "goods", schedule: "ZERO", sale: "2A +n", source: "Act s. 11(1)" },
  { code: "ZS", name: "Export of services", direction: "sale", treatment: "export", supply: "services", schedule: "ZERO", sale: "2 +n", source: "Act s. 11(2)" },
  { code: "EX", name: "Exempt, or no supply", direction: "sale", treatment: "exempt", sale: "3 +n", source: "Act s. 12" },
  { code: "AL", name: "Lodging over 28 days", direction: "sale", treatment: "reduced", supply: "services", schedule: "STD", base: { share: "60" }, sale: "5 +1.15n", source: "Act s. 10(10)" },
  { code: "AS", name: "Lodging up to 28 days", direction: "sale", treatment: "standard", supply: "services", schedule: "STD", sale: "7 +g", source: "Act s. 7(1)" },
  { code: "CU", name: "Change to other use, export of second-hand goods", direction: "sale", treatment: "adjustment", amountIs: "gross", schedule: "STD", sale: "10 +g", source: "Act s. 18" },
  { code: "OA", name: "Other output adjustment", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "12 +t", note: "The amount is the tax.", source: "Act s. 18, 22" },
  { code: "IS", name: "Imported services, not for taxable use", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", recoverable: "0", purchase: "12 +t", source: "Act s. 14" },
  { code: "P15", name: "Standard", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "15 +r", source: "Act s. 16" },
  { code: "P15K", name: "Capital purchase", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "14 +r", source: "Act s. 16" },
  { code: "P15M", name: "Mixed use, shared on the return", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "15 +r", note: "Under apportionment by turnover.", source: "Act s. 17(1)" },
  { code: "P15A", name: "Mixed use, apportioned", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "15 +r", inputs: ["recoverable"], note: "The attribute recoverable holds the ratio.", source: "Act s. 17(1)" },
  { code: "P15N", name: "Blocked: entertainment, cars, club fees", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "Act s. 17(2)" },
  { code: "P15LL", name: "Lodging over 28 days", direction: "purchase", treatment: "reduced", schedule: "STD", base: { share: "60" }, purchase: "15 +r", source: "Act s. 10(10), s. 16" },
  { code: "P15L", name: "Standard, bill of an earlier period", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "15 +r", note: "Not claimed before, within five years.", source: "Act s. 16(3) proviso" },
  { code: "P15KL", name: "Capital purchase, bill of an earlier period", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "14 +r", note: "Not claimed before, within five years.", source: "Act s. 16(3) proviso" },
  { code: "D14", name: "Supplier's credit note on a bill at 14 %", direction: "purchase", treatment: "adjustment", schedule: "OLD", purchase: "12 -r", note: "On a credit note; the tax goes to field 12, field 15 stays.", source: "Act s. 21, s. 67A" },
  { code: "C14", name: "Credit note on a supply at 14 %", direction: "sale", treatment: "adjustment", schedule: "OLD", sale: "18 -t", note: "On a credit note given after March 2018; the tax goes to field 18, field 1 stays.", source: "Act s. 21, s. 67A" },
  { code: "SH", name: "Second-hand goods from a non-vendor", direction: "purchase", treatment: "margin", supply: "goods", amountIs: "gross", schedule: "STD", purchase: "15 +r", note: "The amount is the lower of price and market value; it is deducted as far as it is paid.", source: "Act s. 1, s. 16" },
  { code: "SHK", name: "Second-hand capital goods from a non-vendor", direction: "purchase", treatment: "margin", supply: "goods", amountIs: "gross", schedule: "STD", purchase: "14 +r", source: "Act s. 1, s. 16" },
  { code: "IM", name: "Customs VAT, other goods", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", schedule: "typed", purchase: "15A +r", note: "The amount is the tax.", source: "Act s. 13" },
  { code: "IMK", name: "Customs VAT, capital goods", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", schedule: "typed", purchase: "14A +r", note: "The amount is the tax.", source: "Act s. 13" },
  { code: "IMV", name: "Customs VAT from the customs value, other goods", direction: "purchase", treatment: "import", supply: "goods", amountIs: "base", inputs: ["customsDuty"], formula: "(net * 1.1 + customsDuty) * {STD} / 100", formulaBase: "net * 1.1 + customsDuty", purchase: "15A +r", note: "The amount is the customs value; 10 % of it is added, and the duty. Nothing is added to goods from Botswana, Lesotho, Namibia and Eswatini: type the tax with IM.", source: "Act s. 13(2)" },
  { code: "IMKV", name: "Customs VAT from the customs value, capital goods", direction: "purchase", treatment: "import", supply: "goods", amountIs: "base", inputs: ["customsDuty"], formula: "(net * 1.1 + customsDuty) * {STD} / 100", formulaBase: "net * 1.1 + customsDuty", purchase: "14A +r", note: "As IMV.", source: "Act s. 13(2)" },
  { code: "PZ", name: "Zero-rated", direction: "purchase", treatment: "zero", schedule: "ZERO", source: "Act s. 11" },
  { code: "PX", name: "Exempt", direction: "purchase", treatment: "exempt", source: "Act s. 12" },
  { code: "PN", name: "Supplier is no vendor", direction: "purchase", treatment: "out-of-scope", source: "Act s. 16" },
  { code: "CI", name: "Change to taxable use", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "16 +r", note: "The amount is the tax.", source: "Act s. 18(4)" },
  { code: "BD", name: "Bad debt written off", direction: "purchase", treatment: "adjustment", amountIs: "gross", schedule: "STD", purchase: "17 +r", note: "The amount is the debt with tax; the original date decides the rate.", source: "Act s. 22(1)" },
  { code: "OI", name: "Other input adjustment", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "18 +r", note: "The amount is the tax.", source: "Act s. 16(3)" },
  { code: "RS", name: "Gold between vendors, supplier", direction: "sale", treatment: "reverse-charge-supplier", supply: "goods", schedule: "STD", charged: "declared-only", sale: "3 +n", from: "2022-07-01", source: "regulation GN R.2140" },
  { code: "RP", name: "Gold between vendors, buyer", direction: "purchase", treatment: "reverse-charge", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "12 +t, 18 +r", from: "2022-07-01", source: "regulation GN R.2140" },
];

export const codes = codesOfLevy("za", "VAT", rows);
