import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

const BOTH = { sale: "T1 +t", purchase: "T2 +r" };
const SELF = "T1 +t, T2 +r";

/** Postponed accounting began with the end of the transition period. */
const PA_FROM = "2021-01-01";

type Rated = (code: string, rate: string, schedule: string) => CodeRow[];

const acquired: Rated = (code, rate, schedule) => [
  {
    code,
    name: `Goods acquired from the EU or Northern Ireland, ${rate}`,
    direction: "purchase",
    treatment: "intra-union",
    supply: "goods",
    schedule,
    charged: "self-assessed",
    purchase: `${SELF}, E2 +n`,
    source: "VATCA 2010 s.9",
  },
];
const fromUnion: Rated = (code, rate, schedule) => [
  {
    code,
    name: `Services from a business in the EU, ${rate}`,
    direction: "purchase",
    treatment: "reverse-charge",
    supply: "services",
    schedule,
    charged: "self-assessed",
    purchase: `${SELF}, ES2 +n`,
    source: "VATCA 2010 s.12",
  },
];
const fromAbroad: Rated = (code, rate, schedule) => [
  {
    code,
    name: `Services from outside the EU, ${rate}`,
    direction: "purchase",
    treatment: "reverse-charge",
    supply: "services",
    schedule,
    charged: "self-assessed",
    purchase: SELF,
    source: "VATCA 2010 s.12",
  },
];
const imported: Rated = (code, rate, schedule) => [
  {
    code,
    name: `Import under postponed accounting, ${rate}`,
    direction: "purchase",
    treatment: "import",
    supply: "goods",
    formula: `(net + customsDuty) * {${schedule}} / 100`,
    formulaBase: "net + customsDuty",
    inputs: ["customsDuty"],
    charged: "self-assessed",
    purchase: `${SELF}, PA1 +n`,
    from: PA_FROM,
    note: "The amount is the customs value; the attribute customsDuty holds duty and other charges, 0 where there are none.",
    source: "VATCA 2010 s.53A",
  },
];
const blocked: Rated = (code, rate, schedule) => [
  {
    code,
    name: `Not deductible, ${rate}`,
    direction: "purchase",
    treatment: "blocked",
    schedule,
    recoverable: "0",
    note: "Food, drink, entertainment, accommodation, petrol, cars: the tax is part of the cost.",
    source: "VATCA 2010 s.60",
  },
];
const resale = (code: string, rate: string, schedule: string, treatment: CodeRow["treatment"]): CodeRow[] => [
  {
    code,
    name: `Goods for resale, ${rate}`,
    direction: "purchase",
    treatment,
    supply: "goods",
    schedule,
    purchase: "T2 +r",
    note: "The annual return of trading details asks for goods for resale apart.",
    source: "VATCA 2010 s.59; SI 639/2010",
  },
];

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
  ...acquired("EUA", "standard rate", "STD"),
  ...acquired("EUA13", "13.5 %", "RED"),
  ...acquired("EUA9", "9 %", "SEC"),
  ...acquired("EUA48", "livestock", "L48"),
  { code: "EUA0", name: "Zero-rated goods acquired from the EU or Northern Ireland", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "ZERO", purchase: "E2 +n", source: "VATCA 2010 s.9, Sch 2" },
  { code: "EUAB", name: "Goods acquired from the EU, not deductible", direction: "purchase", treatment: "intra-union", supply: "goods", schedule: "STD", charged: "self-assessed", recoverable: "0", purchase: "T1 +t, E2 +n", note: "Blocked or for exempt supplies: the tax is part of the cost.", source: "VATCA 2010 s.9 and s.60" },
  ...fromUnion("EUP", "standard rate", "STD"),
  ...fromUnion("EUP13", "13.5 %", "RED"),
  ...fromUnion("EUP9", "9 %", "SEC"),
  { code: "EUP0", name: "Services from a business in the EU, exempt or zero-rated here", direction: "purchase", treatment: "zero", supply: "services", purchase: "ES2 +n", source: "VATCA 2010 s.12" },
  ...fromAbroad("RCN", "standard rate", "STD"),
  ...fromAbroad("RCN13", "13.5 %", "RED"),
  ...fromAbroad("RCN9", "9 %", "SEC"),
  { code: "RCEN", name: "Gas and electricity from abroad", direction: "purchase", treatment: "reverse-charge", schedule: "EN", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.10 and s.31" },
  ...imported("PA", "standard rate", "STD"),
  ...imported("PA13", "13.5 %", "RED"),
  ...imported("PA9", "9 %", "SEC"),
  ...imported("PA48", "livestock", "L48"),
  { code: "PA0", name: "Import of zero-rated goods", direction: "purchase", treatment: "import", supply: "goods", schedule: "ZERO", purchase: "PA1 +n", from: PA_FROM, note: "The amount is the customs value.", source: "VATCA 2010 s.53A, Sch 2" },
  { code: "IMP", name: "Import VAT paid or deferred at import", direction: "purchase", treatment: "import", supply: "goods", schedule: "typed", amountIs: "tax", purchase: "T2 +r", note: "The amount is the tax on the customs entry; the supplier's bill carries the value with IMN.", source: "VATCA 2010 s.53" },
  { code: "IMN", name: "Goods imported, the supplier's bill", direction: "purchase", treatment: "import", supply: "goods", note: "The import VAT comes on the customs entry.", source: "VATCA 2010 s.53" },
  { code: "RCTS", name: "Construction to a principal contractor", direction: "sale", treatment: "reverse-charge-supplier", schedule: "RED", charged: "declared-only", source: "VATCA 2010 s.16(3)" },
  { code: "RCTP", name: "Construction from a subcontractor, 13.5 %", direction: "purchase", treatment: "reverse-charge", schedule: "RED", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.16(3)" },
  { code: "RCTP23", name: "Construction from a subcontractor, standard rate", direction: "purchase", treatment: "reverse-charge", schedule: "STD", charged: "self-assessed", purchase: SELF, source: "VATCA 2010 s.16(3)" },
  ...blocked("BL", "standard rate", "STD"),
  ...blocked("BL13", "13.5 %", "RED"),
  ...blocked("BL9", "9 %", "SEC"),
  ...blocked("BLH", "restaurants and catering", "HOSP"),
  ...blocked("BLA", "accommodation", "ACC"),
  { code: "NR", name: "Supplier not registered", direction: "purchase", treatment: "out-of-scope", source: "VATCA 2010 s.59" },
  ...resale("RS23", "standard rate", "STD", "standard"),
  ...resale("RS13", "13.5 %", "RED", "reduced"),
  ...resale("RS9", "9 %", "SEC", "reduced"),
  ...resale("RS0", "zero rate", "ZERO", "zero"),
  { code: "XCON", name: "Listed services to a consumer outside the EU", direction: "sale", treatment: "out-of-scope", supply: "services", source: "VATCA 2010 s.33(5)" },
  { code: "CAR20", name: "Qualifying car, a fifth of the tax", direction: "purchase", treatment: "standard", schedule: "STD", recoverable: "20", purchase: "T2 +r", source: "VATCA 2010 s.62" },
  { code: "FFA", name: "Flat-rate farmer's addition", direction: "purchase", treatment: "standard", schedule: "FFA", purchase: "T2 +r", source: "VATCA 2010 s.86" },
  { code: "MGS", name: "Second-hand goods sold on margin", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: "T1 +t", note: "The line's attribute `cost` holds the purchase price.", source: "VATCA 2010 s.87" },
  { code: "S23M", name: "Standard rate, dual use, shared on the return", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "T2 +r", note: "Under dual-use apportionment.", source: "VATCA 2010 s.61" },
  { code: "MPS", name: "Low-value margin goods sold", direction: "sale", treatment: "margin", note: "The amount is the price; the tax is worked out on the return from the margin of the whole period.", source: "VATCA 2010 s.87(8)" },
  { code: "MPP", name: "Low-value margin goods bought", direction: "purchase", treatment: "margin", note: "Up to 635 a piece.", source: "VATCA 2010 s.87(8)" },
  { code: "MGP", name: "Bought for the margin scheme", direction: "purchase", treatment: "margin", supply: "goods", source: "VATCA 2010 s.87" },
  { code: "BDR", name: "Bad debt relief", direction: "sale", treatment: "adjustment", schedule: "typed", amountIs: "tax", sale: "T1 +t", note: "Entered as a credit note; the amount is the tax of what is written off.", doubt: "The relief stands as less in T1, not as more in T2.", source: "VATCA 2010 s.39(2)" },
  { code: "BDX", name: "Paid after bad debt relief", direction: "sale", treatment: "adjustment", schedule: "typed", amountIs: "tax", sale: "T1 +t", note: "The amount is the tax.", source: "VATCA 2010 s.39(2)" },
  { code: "UNP", name: "Input tax of a bill unpaid for six months", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "T2 +r", note: "The amount is the tax, as a credit.", source: "VATCA 2010 s.62A" },
  { code: "UNR", name: "Input tax of such a bill, paid later", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "T2 +r", note: "The amount is the tax.", source: "VATCA 2010 s.62A" },
  { code: "ADJ", name: "Correction of an earlier period, tax due", direction: "sale", treatment: "adjustment", schedule: "typed", amountIs: "tax", sale: "T1 +t", note: "The amount is the tax, either sign.", source: "Revenue, Code of Practice for Compliance Interventions" },
  { code: "ADI", name: "Correction of an earlier period, tax deductible", direction: "purchase", treatment: "adjustment", schedule: "typed", amountIs: "tax", purchase: "T2 +r", note: "The amount is the tax, either sign.", source: "VATCA 2010 s.59" },
];

/** The codes of Ireland. A credit note uses the same boxes with the opposite sign. */
export const codes = codesOfLevy("ie", "VAT", rows);
