import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

/** Boxes 5 and 11 take amounts with tax. What is not deductible leaves box 11 by its own gross, 23/3 of the tax. */
const BOUGHT = { purchase: "11 +g, 11 -23/3u", purchaseCredit: "9 -r" } as const;
const ZERO = { sale: "5 +n, 6 +n" } as const;

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S15", name: "Standard", direction: "sale", treatment: "standard", schedule: "STD", sale: "5 +g", saleCredit: "13 -t", source: "GSTA s 8" },
  { code: "SZ", name: "Zero-rated: exports, services abroad, going concern", direction: "sale", treatment: "zero", schedule: "ZERO", ...ZERO, source: "GSTA s 11, 11A" },
  { code: "SL", name: "Zero-rated land between registered persons", direction: "sale", treatment: "zero", schedule: "ZERO", ...ZERO, source: "GSTA s 11(1)(mb)" },
  { code: "SP", name: "Supply through a marketplace operator", direction: "sale", treatment: "zero", schedule: "ZERO", ...ZERO, source: "GSTA s 8C; from memory" },
  { code: "SE", name: "Exempt", direction: "sale", treatment: "exempt", source: "GSTA s 14" },
  { code: "S9", name: "Long stay, 60 % of the value", direction: "sale", treatment: "reduced", schedule: "STD", base: { share: "60" }, sale: "5 +23/3t", source: "GSTA s 10(6)" },
  { code: "SO", name: "Out of scope", direction: "sale", treatment: "out-of-scope", source: "GSTA s 6" },
  { code: "P15", name: "Standard", direction: "purchase", treatment: "standard", schedule: "STD", ...BOUGHT, source: "GSTA s 20" },
  { code: "P15L", name: "Standard, claimed late", direction: "purchase", treatment: "standard", schedule: "STD", ...BOUGHT, note: "A bill older than the period; past two years the law asks for a reason.", source: "GSTA s 20(3)" },
  { code: "P15E", name: "Entertainment, half taken back once a year", direction: "purchase", treatment: "standard", schedule: "STD", ...BOUGHT, source: "GSTA s 21I" },
  { code: "P9", name: "Long stay, 60 % of the value", direction: "purchase", treatment: "reduced", schedule: "STD", base: { share: "60" }, purchase: "11 +23/3r", purchaseCredit: "9 -r", source: "GSTA s 10(6), s 20" },
  { code: "P0", name: "Zero-rated, exempt or from an unregistered supplier", direction: "purchase", treatment: "out-of-scope", source: "GSTA s 20" },
  { code: "PB", name: "Private or exempt use", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "GSTA s 20(3C)" },
  { code: "P2", name: "Second-hand goods from a person not registered", direction: "purchase", treatment: "margin", supply: "goods", amountIs: "gross", schedule: "STD", ...BOUGHT, note: "The credit is 3/23 of the price, as far as it is paid.", source: "GSTA s 3A, 20(3)" },
  { code: "IM", name: "Customs GST on an entry", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", schedule: "typed", purchase: "13 +r", note: "The amount is the tax.", source: "GSTA s 12" },
  { code: "IG", name: "Overseas bill for imported goods", direction: "purchase", treatment: "out-of-scope", supply: "goods", source: "GSTA s 12" },
  { code: "RC", name: "Imported services, taxable use below 95 %", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: "5 +g, 11 +g, 11 -23/3u", inputs: ["recoverable"], note: "The attribute recoverable holds the taxable share.", source: "GSTA s 8(4B)" },
  { code: "LB", name: "Land bought zero-rated, partly for other use", direction: "purchase", treatment: "reverse-charge", formula: "net * {STD} / 100 * (100 - taxableShare) / 100", formulaBase: "net", inputs: ["taxableShare"], charged: "self-assessed", recoverable: "0", purchase: "9 +t", source: "GSTA s 20(3J)" },
  { code: "SM", name: "Marketplace operator's listed service", direction: "sale", treatment: "standard", supply: "services", schedule: "STD", sale: "5 +g", saleCredit: "13 -t", from: "2024-04-01", note: "For a seller who is not registered the flat-rate credit of 8.5 % of the value goes to box 13: A13.", source: "GSTA s 8C; from memory" },
  { code: "EN", name: "Entertainment, yearly", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "9 +t", note: "The amount is the tax.", source: "GSTA s 21I" },
  { code: "BW", name: "Bad debt written off", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "13 +r", note: "The amount is the tax in what is written off.", source: "GSTA s 26" },
  { code: "BV", name: "Bad debt recovered", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "9 +t", note: "The amount is the tax in what is recovered.", source: "GSTA s 26" },
  { code: "A9", name: "Debit adjustment", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "9 +t", note: "The amount is the tax.", source: "IR372" },
  { code: "A13", name: "Credit adjustment", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "13 +r", note: "The amount is the tax.", source: "IR372" },
];

export const codes = codesOfLevy("nz", "GST", rows);
