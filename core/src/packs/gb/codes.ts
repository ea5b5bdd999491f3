import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

const SALE = "1 +t, 6 +n";
const PURCHASE = "4 +r, 7 +n";
const NET_ONLY = { sale: "6 +n", purchase: "7 +n" };

// One code a line, as in the fact tables of the law.
// prettier-ignore
const rows: CodeRow[] = [
  { code: "S20", name: "Standard rate", direction: "both", treatment: "standard", schedule: "STD", sale: SALE, purchase: PURCHASE, source: "VATA 1994 s.2(1)" },
  { code: "R5", name: "Reduced rate", direction: "both", treatment: "reduced", schedule: "RED", sale: SALE, purchase: PURCHASE, source: "VATA 1994 s.29A" },
  { code: "H", name: "Hospitality and holiday accommodation", direction: "both", treatment: "reduced", schedule: "HOSP", sale: SALE, purchase: PURCHASE, note: "Not for alcoholic drinks, which stayed at the standard rate.", source: "VATA 1994 Sch 7A groups 14 to 16" },
  { code: "HBL", name: "Hospitality for others than employees, blocked", direction: "purchase", treatment: "blocked", schedule: "HOSP", recoverable: "0", purchase: PURCHASE, note: "The tax is part of the cost.", source: "SI 1992/3222 art. 5, VATA 1994 Sch 7A" },
  { code: "Z", name: "Zero rate", direction: "both", treatment: "zero", schedule: "ZERO", ...NET_ONLY, source: "VATA 1994 s.30, Sch 8" },
  { code: "EX", name: "Exempt", direction: "both", treatment: "exempt", ...NET_ONLY, source: "VATA 1994 s.31, Sch 9" },
  { code: "NV", name: "Bought from a person not registered", direction: "purchase", treatment: "out-of-scope", purchase: "7 +n", source: "common practice, no source" },
  { code: "EUNV", name: "Goods from an EU seller who is not registered, into Northern Ireland", direction: "purchase", treatment: "out-of-scope", supply: "goods", purchase: "7 +n", note: "No acquisition and no import: never in boxes 2, 8 and 9.", doubt: "Counted in box 7 and not in box 9.", source: "VATA 1994 Sch 9ZA; VAT Notices 725 and 700/12, box 9" },
  { code: "EUCH", name: "Goods into Northern Ireland with the tax of the EU seller charged", direction: "purchase", treatment: "out-of-scope", supply: "goods", purchase: "7 +g", note: "The amount is the whole price: foreign VAT is cost, never in box 4.", source: "VAT Notice 725" },
  { code: "OS", name: "Outside the scope", direction: "both", treatment: "out-of-scope", note: "Wages, dividends, loans, statutory charges.", source: "VATA 1994 s.4" },
  { code: "OSR", name: "Services supplied outside the UK", direction: "sale", treatment: "out-of-scope", supply: "services", sale: "6 +n", source: "VAT Notice 741A" },
  { code: "XG", name: "Export of goods", direction: "sale", treatment: "export", supply: "goods", schedule: "ZERO", sale: "6 +n", note: "Evidence of export within 3 months.", source: "VAT Notice 703" },
  { code: "EUS", name: "Goods from Northern Ireland to a registered buyer in the EU", direction: "sale", treatment: "intra-union", supply: "goods", schedule: "ZERO", sale: "6 +n, 8 +n", source: "VAT Notice 725" },
  { code: "EUA", name: "Goods acquired from the EU into Northern Ireland, standard", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "2 +t, 4 +r, 7 +n, 9 +n", source: "VAT Notice 725" },
  { code: "EUA5", name: "Goods acquired from the EU into Northern Ireland, reduced", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "RED", charged: "self-assessed", purchase: "2 +t, 4 +r, 7 +n, 9 +n", source: "VAT Notice 725" },
  { code: "EUA0", name: "Goods acquired from the EU into Northern Ireland, zero", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "ZERO", charged: "self-assessed", purchase: "7 +n, 9 +n", source: "VAT Notice 725" },
  { code: "RCS", name: "Services from abroad, standard", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: "1 +t, 4 +r, 6 +n, 7 +n", source: "VATA 1994 s.8, VAT Notice 741A" },
  { code: "RCS5", name: "Services from abroad, reduced", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "RED", charged: "self-assessed", purchase: "1 +t, 4 +r, 6 +n, 7 +n", source: "VATA 1994 s.8, VAT Notice 741A" },
  { code: "RCS0", name: "Services from abroad, zero-rated here", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "ZERO", charged: "self-assessed", purchase: "6 +n, 7 +n", source: "VATA 1994 s.8, Sch 8" },
  { code: "DRS", name: "Domestic reverse charge, supplier, standard", direction: "sale", treatment: "reverse-charge-supplier", schedule: "STD", charged: "declared-only", sale: "6 +n", from: "2007-06-01", source: "VATA 1994 s.55A, VAT Notice 735" },
  { code: "DRS5", name: "Domestic reverse charge, supplier, reduced", direction: "sale", treatment: "reverse-charge-supplier", schedule: "RED", charged: "declared-only", sale: "6 +n", from: "2021-03-01", source: "VATA 1994 s.55A, VAT Notice 735" },
  { code: "DRP", name: "Domestic reverse charge, customer, standard", direction: "purchase", treatment: "reverse-charge", schedule: "STD", charged: "self-assessed", purchase: "1 +t, 4 +r, 7 +n", from: "2007-06-01", note: "Never in box 6.", source: "VATA 1994 s.55A, VAT Notice 735" },
  { code: "DRP5", name: "Domestic reverse charge, customer, reduced", direction: "purchase", treatment: "reverse-charge", schedule: "RED", charged: "self-assessed", purchase: "1 +t, 4 +r, 7 +n", from: "2021-03-01", note: "Never in box 6.", source: "VATA 1994 s.55A, VAT Notice 735" },
  { code: "PVA20", name: "Import, postponed accounting, standard", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "1 +t, 4 +r, 7 +n", from: "2021-01-01", note: "Tax point: the date of import.", source: "VAT Notice 702, postponed VAT accounting" },
  { code: "PVA5", name: "Import, postponed accounting, reduced", direction: "purchase", treatment: "import", supply: "goods", schedule: "RED", charged: "self-assessed", purchase: "1 +t, 4 +r, 7 +n", from: "2021-01-01", source: "VAT Notice 702, postponed VAT accounting" },
  { code: "PVAB", name: "Import, postponed accounting, not deductible", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", recoverable: "0", purchase: "1 +t, 7 +n", from: "2021-01-01", note: "Blocked or for exempt supplies: the tax is part of the cost.", source: "VAT Notice 702, postponed VAT accounting; SI 1992/3222" },
  { code: "IMP0", name: "Import of zero-rated or relieved goods", direction: "purchase", treatment: "import", supply: "goods", schedule: "ZERO", purchase: "7 +n", note: "Books, food, children's clothes; returned goods.", source: "VATA 1994 Sch 8, VAT Notice 702" },
  { code: "IMP", name: "Import VAT paid at the border", direction: "purchase", treatment: "import", supply: "goods", schedule: "typed", amountIs: "tax", purchase: "4 +r", note: "The amount is the tax on certificate C79; the supplier's bill carries the value with IMN.", source: "VAT Notice 702" },
  { code: "IMN", name: "Goods imported, the supplier's bill", direction: "purchase", treatment: "import", supply: "goods", purchase: "7 +n", note: "The import VAT comes with its certificate, IMP, or on the postponed statement.", source: "VAT Notice 700/12" },
  { code: "BL20", name: "Blocked input tax", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", purchase: PURCHASE, note: "Business entertainment, cars, private use: the tax is part of the cost.", source: "SI 1992/3222 art. 5 and 7" },
  { code: "BL5", name: "Blocked input tax, reduced rate", direction: "purchase", treatment: "blocked", schedule: "RED", recoverable: "0", purchase: PURCHASE, note: "The tax is part of the cost.", source: "SI 1992/3222 art. 5 and 7" },
  { code: "CL50", name: "Car lease with private use", direction: "purchase", treatment: "standard", supply: "services", schedule: "STD", recoverable: "50", purchase: PURCHASE, source: "SI 1992/3222 art. 7, VAT Notice 700/64" },
  { code: "SA20", name: "Sale of an asset whose tax was deducted", direction: "sale", treatment: "standard", supply: "goods", schedule: "STD", sale: SALE, note: "Taxed the ordinary way, also on the flat rate scheme.", source: "VATA 1994 s.2; VAT Notice 733, section 15" },
  { code: "CAP20", name: "Capital purchase", direction: "purchase", treatment: "standard", supply: "goods", schedule: "STD", purchase: PURCHASE, source: "VATA 1994 s.24" },
  { code: "S20E", name: "Standard rate, wholly for exempt supplies", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", purchase: PURCHASE, note: "Not deducted unless within the de minimis limits.", source: "SI 1995/2518 reg. 101" },
  { code: "S20M", name: "Standard rate, mixed use, shared on the return", direction: "purchase", treatment: "standard", schedule: "STD", purchase: PURCHASE, note: "Under the standard method of partial exemption.", source: "SI 1995/2518 reg. 101" },
  { code: "S5M", name: "Reduced rate, mixed use, shared on the return", direction: "purchase", treatment: "reduced", schedule: "RED", purchase: PURCHASE, note: "Under the standard method of partial exemption.", source: "SI 1995/2518 reg. 101" },
  { code: "S20R", name: "Standard rate, mixed use", direction: "purchase", treatment: "standard", schedule: "STD", purchase: PURCHASE, inputs: ["recoverable"], note: "The line's attribute `recoverable` holds the partial exemption percentage.", source: "SI 1995/2518 reg. 101" },
  { code: "MGS", name: "Second-hand goods sold on margin", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: SALE, note: "The line's attribute `cost` holds the purchase price. A loss is never set against another item.", source: "VATA 1994 s.50A, VAT Notice 718" },
  { code: "MGP", name: "Second-hand goods bought for the margin scheme", direction: "purchase", treatment: "margin", supply: "goods", purchase: "7 +n", source: "VATA 1994 s.50A, VAT Notice 718" },
  { code: "GAS", name: "Sold under global accounting", direction: "sale", treatment: "margin", sale: "6 +n", note: "The amount is the price; the tax is worked out on the return from the margin of the whole period.", source: "VAT Notice 718, section 14" },
  { code: "GAP", name: "Bought for global accounting", direction: "purchase", treatment: "margin", purchase: "7 +n", note: "Up to 500 a piece.", source: "VAT Notice 718, section 14" },
  { code: "FSC", name: "Fuel scale charge", direction: "sale", treatment: "standard", schedule: "STD", sale: SALE, note: "On a journal: credit and debit the cost with the charge, the credit with this code.", source: "VATA 1994 s.56 and 57" },
  { code: "OWN", name: "Own use, gifts, staff benefits at cost", direction: "sale", treatment: "standard", schedule: "STD", sale: SALE, source: "VATA 1994 Sch 4" },
  { code: "BDR", name: "Bad debt relief", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "4 +r", note: "The amount is the tax.", source: "VATA 1994 s.36, VAT Notice 700/18" },
  { code: "BDX", name: "Paid after bad debt relief", direction: "sale", treatment: "adjustment", schedule: "typed", amountIs: "tax", sale: "1 +t", note: "The amount is the tax.", source: "VATA 1994 s.36, VAT Notice 700/18" },
  { code: "CLW", name: "Input tax repaid, unpaid for 6 months", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "4 +r", note: "The amount is the tax, as a credit.", source: "VATA 1994 s.26A" },
  { code: "CLR", name: "Input tax restored on payment", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "4 +r", note: "The amount is the tax.", source: "VATA 1994 s.26A" },
  { code: "ERO", name: "Error of an earlier period, due to the authority", direction: "sale", treatment: "adjustment", schedule: "typed", amountIs: "tax", sale: "1 +t", source: "VAT Notice 700/45" },
  { code: "ERI", name: "Error of an earlier period, due to the business", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "4 +r", source: "VAT Notice 700/45" },
];

/** The codes of the United Kingdom. A credit note uses the same boxes with the opposite sign. */
export const codes = codesOfLevy("gb", "VAT", rows);
