import type { YearlyReport } from "../../model/yearlyReport.ts";
import { sum, WHOLE_CUT } from "../shared/formBoxes.ts";

const VALUE = { holds: "value", rounding: WHOLE_CUT } as const;
const HELPER = { helper: true } as const;

/** Rates that were in force since 2018, and nought. */
const RATES = ["23", "21", "13.5", "9", "4.8"] as const;

/** Tax the customer owes, of goods and services from abroad and of construction. */
const ABROAD = ["intra-union", "reverse-charge"] as const;
const RESALE = ["RS23", "RS13", "RS9"] as const;

const ROWS = {
  S: "Supplies in the State",
  A: "Liable as recipient: acquisitions, services, construction",
  R: "Deductible goods for resale",
  D: "Other deductible goods and services",
} as const;

const byRate = (row: keyof typeof ROWS) =>
  RATES.map((rate) => sum(`RTD.${row}.${rate}`, `${ROWS[row]}, ${rate} %`, VALUE));

/** The net value of a row, rate by rate, at its rate. */
const atRates = (row: keyof typeof ROWS) =>
  RATES.map((rate) => `[RTD.${row}.${rate}] * ${rate} / 100`).join(" + ");

/**
 * Ireland, return of trading details: net values of an accounting year by rate, no tax. The rows' letters are our own;
 * those that are printed have to be looked up.
 * @source VATCA 2010 s.76 and VAT Regulations 2010, reg. 25; from memory
 */
export const tradingDetails: YearlyReport = {
  form: {
    id: "ie-rtd",
    name: "Return of trading details",
    levies: ["VAT"],
    from: "2018-01-01",
    to: null,
    boxes: [
      ...byRate("S"),
      sum("RTD.S.M", "Goods sold on the margin, the margin without tax", {
        ...VALUE,
        words: "Belongs to the row of the standard rate.",
      }),
      sum("RTD.S.0", "Supplies in the State, zero rate", VALUE),
      sum("RTD.SX", "Exports, and goods to other EU countries", VALUE),
      sum("RTD.SE", "Exempt supplies", VALUE),
      ...byRate("A"),
      sum("RTD.PA2", "Postponed imports, customs value", { ...VALUE, doubt: "The meaning of the row." }),
      sum("RTD.PA4", "Postponed imports that are deductible, not for resale", {
        ...VALUE,
        doubt: "The meaning of the row.",
      }),
      ...byRate("R"),
      sum("RTD.R.0", "Goods for resale, zero rate", VALUE),
      ...byRate("D"),
      sum("RTD.D.0", "Other purchases, zero rate", VALUE),
      sum("margin.tax", "Tax on margins", HELPER),
      sum("import.tax", "Tax on postponed imports", HELPER),
      sum("import.input", "Of which deductible", HELPER),
      sum("paid.input", "Import VAT paid at import", HELPER),
    ],
    net: { output: "0", input: "0", due: "0", shown: "RTD.SE" },
    source: "Revenue, return of trading details; from memory",
  },
  beside: ["ie-vat3"],
  rules: [
    { direction: "sale", treatments: ["standard", "reduced"], tags: "RTD.S.{rate} +n" },
    { direction: "sale", codes: ["MGS"], tags: "RTD.S.M +b, margin.tax +t" },
    { direction: "sale", treatments: ["zero"], tags: "RTD.S.0 +n" },
    { direction: "sale", treatments: ["export"], tags: "RTD.SX +n" },
    { direction: "sale", codes: ["EUG"], tags: "RTD.SX +n" },
    { direction: "sale", treatments: ["exempt"], tags: "RTD.SE +n" },
    { direction: "purchase", treatments: ABROAD, charged: "self-assessed", tags: "RTD.A.{rate} +n" },
    {
      direction: "purchase",
      treatments: ["import"],
      charged: "self-assessed",
      tags: "RTD.PA2 +n, import.tax +t",
    },
    {
      direction: "purchase",
      treatments: ["import"],
      charged: "self-assessed",
      deducted: true,
      tags: "RTD.PA4 +n, import.input +r",
    },
    { direction: "purchase", codes: ["IMP"], tags: "paid.input +r" },
    { direction: "purchase", codes: RESALE, deducted: true, tags: "RTD.R.{rate} +n" },
    { direction: "purchase", codes: ["RS0"], tags: "RTD.R.0 +n" },
    {
      direction: "purchase",
      treatments: ["standard", "reduced", ...ABROAD],
      notCodes: RESALE,
      deducted: true,
      tags: "RTD.D.{rate} +n",
    },
    { direction: "purchase", treatments: ["zero"], notCodes: ["RS0"], tags: "RTD.D.0 +n" },
  ],
  ties: [
    {
      says: "What is supplied and owed as recipient, at its rates",
      report: `${atRates("S")} + ${atRates("A")} + [margin.tax] + [import.tax]`,
      returns: "[T1]",
    },
    {
      says: "What is deductible, at its rates",
      report: `${atRates("R")} + ${atRates("D")} + [import.input] + [paid.input]`,
      returns: "[T2]",
    },
  ],
};
