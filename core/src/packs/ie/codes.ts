import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

const BOTH = { sale: "T1 +t", purchase: "T2 +r" };
const SELF = "T1 +t, T2 +r";

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S23", name: "Standard rate", direction: "both", treatment: "standard", schedule: "STD", ...BOTH, source: "VATCA 2010 s.46" },
  { code: "R13", name: "Reduced rate 13.5 %", direction: "both", treatment: "reduced", schedule: "RED", ...BOTH, source: "VATCA 2010 Sch 3" },
  { code: "R9", name: "Second reduced rate 9 %", direction: "both", treatment: "reduced", schedule: "SEC", ...BOTH, source: "VATCA 2010 Sch 3" },
  { code: "H", name: "Restaurants, catering, hairdressing", direction: "both", treatment: "reduced", schedule: "HOSP", ...BOTH, source: "VATCA 2010 Sch 3" },
  { code: "AC", name: "Accommodation, cinemas, attractions", direction: "both", treatment: "reduced", schedule: "ACC", ...BOTH, source: "VATCA 2010 Sch 3" },
  { code: "EN", name: "Gas and electricity", direction: "both", treatment: "reduced", schedule: "EN", ...BOTH, source: "VATCA 2010 Sch 3" },
  { code: "L48", name: "Livestock", direction: "both", treatment: "reduced", schedule: "L48", ...BOTH, source: "VATCA 2010 s.46" },
  { code: "Z", name: "Zero rate", direction: "both", treatment: "zero", schedule: "ZERO", source: "VATCA 2010 Sch 2" },
  { code: "EX", name: "Exempt", direction: "both", treatment: "exempt", source: "VATCA 2010 Sch 1" },
  { code: "OS", name: "Outside the scope", direction: "both", treatment: "out-of-scope", source: "VATCA 2010 s.3" },
  { code: "XG", name: "Export of goods outside the EU", direction: "sale", treatment: "export", supply: "goods", schedule: "ZERO", source: "VATCA 2010 Sch 2" },
  { code: "XS", name: "Services to a business outside the EU", direction: "sale", treatment: "out-of-scope", supply: "services", source: "VATCA 2010 s.34" },
  { code: "S56", name: "Zero rate under a section 56 authorisation", direction: "both", treatment: "zero", schedule: "ZERO", source: "VATCA 2010 s.56" },
  { code: "EUG", name: "Goods to a registered buyer in the EU or Northern Ireland", direction: "sale", treatment: "intra-union", supply: "goods", schedule: "ZERO", sale: "E1 +n", note: "VIES statement.", source: "VATCA 2010 Sch 2" },
  { code: "EUSV", name: "Services to a business in the EU", direction: "sale", treatment: "intra-union", supply: "services", sale: "ES1 +n", note: "VIES statement.", source: "VATCA 2010 s.34" },
  { code: "EUA", name: "Goods acquired from the EU or Northern Ireland", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: `${SELF}, E2 +n`, source: "VATCA 2010 s.9" },
  { code: "EUP", name: "Services from a business in the EU", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: `${SELF}, ES2 +n`, source: "VATCA 2010 s.12" },
  { code: "RCN", name: "Services from outside the EU", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.12" },
  { code: "PA", name: "Import under postponed accounting", direction: "purchase", treatment: "import", supply: "goods", formula: "(net + customsDuty) * {STD} / 100", formulaBase: "net + customsDuty", inputs: ["customsDuty"], charged: "self-assessed", purchase: `${SELF}, PA1 +n`, note: "The amount is the customs value; the attribute customsDuty holds duty and other charges, 0 where there are none.", source: "VATCA 2010 s.53A" },
  { code: "IMP", name: "Import VAT paid or deferred at import", direction: "purchase", treatment: "import", supply: "goods", schedule: "typed", amountIs: "tax", purchase: "T2 +r", note: "The amount is the tax on the customs entry; the supplier's bill carries the value with IMN.", source: "VATCA 2010 s.53" },
  { code: "IMN", name: "Goods imported, the supplier's bill", direction: "purchase", treatment: "import", supply: "goods", note: "The import VAT comes on the customs entry.", source: "VATCA 2010 s.53" },
  { code: "RCTS", name: "Construction to a principal contractor", direction: "sale", treatment: "reverse-charge-supplier", schedule: "RED", charged: "declared-only", source: "VATCA 2010 s.16(3)" },
  { code: "RCTP", name: "Construction from a subcontractor, 13.5 %", direction: "purchase", treatment: "reverse-charge", schedule: "RED", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.16(3)" },
  { code: "RCTP23", name: "Construction from a subcontractor, standard rate", direction: "purchase", treatment: "reverse-charge", schedule: "STD", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.16(3)" },
  { code: "BL", name: "Not deductible: food, accommodation, entertainment, petrol, cars", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "VATCA 2010 s.60" },
  { code: "CAR20", name: "Qualifying car, a fifth of the tax", direction: "purchase", treatment: "standard", schedule: "STD", recoverable: "20", purchase: "T2 +r", source: "VATCA 2010 s.62" },
  { code: "FFA", name: "Flat-rate farmer's addition", direction: "purchase", treatment: "standard", schedule: "FFA", purchase: "T2 +r", source: "VATCA 2010 s.86" },
  { code: "MGS", name: "Second-hand goods sold on margin", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: "T1 +t", note: "The line's attribute `cost` holds the purchase price.", source: "VATCA 2010 s.87" },
  { code: "MGP", name: "Bought for the margin scheme", direction: "purchase", treatment: "margin", supply: "goods", source: "VATCA 2010 s.87" },
];

/** The codes of Ireland. A credit note uses the same boxes with the opposite sign. */
export const codes = codesOfLevy("ie", "VAT", rows);
