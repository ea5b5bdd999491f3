import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

const R13B = "UStG § 13b";

const BAD_DEBT =
  "On a credit note or as a debit on a journal: the value without tax of what is uncollectable, at the rate of the supply.";
const BAD_DEBT_SOURCE = "UStG § 17(2) no. 1";

/** A claim that is uncollectable lowers the tax, and stands in field 50 beside; paid after all it is the reverse. */
// prettier-ignore
const uncollectable = (percent: string, schedule: string, box: string): CodeRow[] => [
  { code: `BD${percent}`, name: `Claim uncollectable, ${percent} %`, direction: "sale", treatment: "adjustment", schedule, sale: `${box} +n, 50 -n`, note: BAD_DEBT, source: BAD_DEBT_SOURCE },
  { code: `BR${percent}`, name: `Uncollectable claim paid after all, ${percent} %`, direction: "sale", treatment: "adjustment", schedule, sale: `${box} +n`, doubt: "Field 50 is left as it is.", source: BAD_DEBT_SOURCE },
];

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S19", name: "Standard rate 19 %", direction: "sale", treatment: "standard", schedule: "R19", sale: "81 +n", source: "UStG § 12(1)" },
  { code: "S7", name: "Reduced rate 7 %", direction: "sale", treatment: "reduced", schedule: "R7", sale: "86 +n", source: "UStG § 12(2)" },
  { code: "S16", name: "Standard rate 16 %, second half of 2020", direction: "sale", treatment: "standard", schedule: "R16", sale: "35 +n, 36 +t", source: "UStG § 28" },
  { code: "S5", name: "Reduced rate 5 %, second half of 2020", direction: "sale", treatment: "reduced", schedule: "R5", sale: "35 +n, 36 +t", source: "UStG § 28" },
  { code: "S0", name: "Zero rate, solar systems", direction: "sale", treatment: "zero", schedule: "ZERO", sale: "87 +n", from: "2023-01-01", source: "UStG § 12(3)" },
  { code: "M19", name: "Margin scheme", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: "81 +b", note: "The line's attribute `cost` holds the purchase price.", source: "UStG § 25a" },
  { code: "KU", name: "Small business, no tax on the paper", direction: "sale", treatment: "exempt", note: "On no return; the paper says: exempt as a small business, § 19 UStG.", source: "UStG § 19" },
  ...uncollectable("19", "R19", "81"),
  ...uncollectable("7", "R7", "86"),
  { code: "BD16", name: "Claim uncollectable, 16 %", direction: "sale", treatment: "adjustment", schedule: "R16", sale: "35 +n, 36 +t, 50 -n", note: BAD_DEBT, source: BAD_DEBT_SOURCE },
  { code: "BD5", name: "Claim uncollectable, 5 %", direction: "sale", treatment: "adjustment", schedule: "R5", sale: "35 +n, 36 +t, 50 -n", note: BAD_DEBT, source: BAD_DEBT_SOURCE },
  { code: "IGL", name: "Goods to a registered buyer in the EU", direction: "sale", treatment: "intra-union", supply: "goods", schedule: "ZERO", sale: "41 +n", note: "EC sales list, L.", source: "UStG § 6a" },
  { code: "IGD", name: "Middle party of a triangle", direction: "sale", treatment: "intra-union", supply: "goods", schedule: "ZERO", sale: "42 +n", note: "EC sales list, D.", source: "UStG § 25b" },
  { code: "IGS", name: "Services to a business in the EU", direction: "sale", treatment: "intra-union", supply: "services", sale: "21 +n", note: "EC sales list, S.", source: "UStG § 3a(2)" },
  { code: "EXP", name: "Export, and exempt with input credit", direction: "sale", treatment: "export", schedule: "ZERO", sale: "43 +n", source: "UStG § 4 no. 1 to 7" },
  { code: "EXM", name: "Exempt without input credit", direction: "sale", treatment: "exempt", sale: "48 +n", source: "UStG § 4 no. 8 ff." },
  { code: "NSB", name: "Not taxable in Germany, other", direction: "sale", treatment: "out-of-scope", sale: "45 +n", source: "UStG § 3a" },
  { code: "RCS", name: "Reverse charge, supplier", direction: "sale", treatment: "reverse-charge-supplier", schedule: "STD", charged: "declared-only", sale: "60 +n", source: R13B },
  { code: "C14", name: "Tax wrongly shown", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "69 +t", note: "The amount is the tax.", source: "UStG § 14c" },
  { code: "V19", name: "Input tax 19 %", direction: "purchase", treatment: "standard", schedule: "R19", purchase: "66 +r", source: "UStG § 15" },
  { code: "V7", name: "Input tax 7 %", direction: "purchase", treatment: "reduced", schedule: "R7", purchase: "66 +r", source: "UStG § 15" },
  { code: "V16", name: "Input tax 16 %, second half of 2020", direction: "purchase", treatment: "standard", schedule: "R16", purchase: "66 +r", source: "UStG § 28" },
  { code: "V5", name: "Input tax 5 %, second half of 2020", direction: "purchase", treatment: "reduced", schedule: "R5", purchase: "66 +r", source: "UStG § 28" },
  { code: "VP", name: "Input tax, mixed use", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "66 +r", inputs: ["recoverable"], note: "The attribute recoverable holds the share.", source: "UStG § 15(4)" },
  { code: "VN", name: "Input tax not deductible", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "UStG § 15(1a), (2)" },
  { code: "BV", name: "Our own bill uncollectable for the supplier, input tax back", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "66 +r, 37 -r", note: "The amount is the tax, as a credit.", source: "UStG § 17(1) sentence 2, (2) no. 1" },
  { code: "MP19", name: "Margin of a period, sold", direction: "sale", treatment: "margin", note: "The amount is the price; the tax is worked out on the return from the margin of the whole period.", source: "UStG § 25a(4)" },
  { code: "MPG", name: "Margin of a period, bought", direction: "purchase", treatment: "margin", note: "Up to 750 a piece.", source: "UStG § 25a(4)" },
  { code: "MG", name: "Goods bought for the margin", direction: "purchase", treatment: "margin", supply: "goods", source: "UStG § 25a" },
  { code: "V0", name: "No tax on the paper", direction: "purchase", treatment: "out-of-scope", source: "UStG § 19" },
  { code: "IGE19", name: "Acquisition from the EU, 19 %", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "R19", charged: "self-assessed", purchase: "89 +n, 61 +r", source: "UStG § 1a" },
  { code: "IGE7", name: "Acquisition from the EU, 7 %", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "R7", charged: "self-assessed", purchase: "93 +n, 61 +r", source: "UStG § 1a" },
  { code: "IGEX", name: "Acquisition from the EU, 16 %, second half of 2020", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "R16", charged: "self-assessed", purchase: "95 +n, 98 +t, 61 +r", source: "UStG § 28" },
  { code: "IGEX5", name: "Acquisition from the EU, 5 %, second half of 2020", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "R5", charged: "self-assessed", purchase: "95 +n, 98 +t, 61 +r", source: "UStG § 28" },
  { code: "IGE0", name: "Acquisition from the EU, solar", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "ZERO", purchase: "90 +n", from: "2023-01-01", source: "UStG § 12(3)" },
  { code: "IGEF", name: "Exempt acquisition from the EU", direction: "purchase", treatment: "intra-union", supply: "goods", purchase: "91 +n", source: "UStG § 4b" },
  { code: "R46", name: "Services of a business in the EU", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: "46 +n, 47 +t, 67 +r", source: "UStG § 13b(1)" },
  { code: "R46R", name: "Services of a business in the EU, reduced rate", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "RED", charged: "self-assessed", purchase: "46 +n, 47 +t, 67 +r", note: "Books and papers online, rights of authors and artists.", source: "UStG § 13b(1), § 12(2)" },
  { code: "R84R", name: "Other reverse charges, reduced rate", direction: "purchase", treatment: "reverse-charge", schedule: "RED", charged: "self-assessed", purchase: "84 +n, 85 +t, 67 +r", note: "Artists and authors outside the EU.", source: "UStG § 13b(2), § 12(2)" },
  { code: "R84", name: "Other reverse charges", direction: "purchase", treatment: "reverse-charge", schedule: "STD", charged: "self-assessed", purchase: "84 +n, 85 +t, 67 +r", note: "Suppliers outside the EU, building work, cleaning, scrap, metals, phones and chips.", source: "UStG § 13b(2)" },
  { code: "R73", name: "Reverse charge, land transfer", direction: "purchase", treatment: "reverse-charge", schedule: "STD", charged: "self-assessed", purchase: "73 +n, 74 +t, 67 +r", source: "UStG § 13b(2) no. 3" },
  { code: "IMV", name: "Import VAT", direction: "purchase", treatment: "import", supply: "goods", amountIs: "tax", schedule: "typed", purchase: "62 +r", note: "The amount is the tax.", source: "UStG § 15(1) no. 2" },
  { code: "A15", name: "Correction of input tax", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "64 +r", note: "The amount is the tax, either sign.", source: "UStG § 15a" },
];

export const codes = codesOfLevy("eu-de", "VAT", rows);
