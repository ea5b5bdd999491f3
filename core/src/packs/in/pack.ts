import type { JurisdictionPack } from "../../model/pack.ts";
import { accrual } from "../shared/bases.ts";
import { annualReturn } from "./annualReturn.ts";
import { accounts } from "./accounts.ts";
import { due, furtherDays, rhythms, roundings } from "./calendar.ts";
import { checks } from "./checks.ts";
import { claims } from "./claims.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { collection } from "./collection.ts";
import { correction } from "./correction.ts";
import { compositionForms, gstr, oldVat } from "./forms.ts";
import { checkGstin, stateOfGstin } from "./gstin.ts";
import { instalments } from "./instalments.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateMoves, rateNames, schedules, SLABS } from "./rates.ts";
import { registers } from "./registers.ts";
import { classes, rules } from "./rules.ts";
import { states } from "./states.ts";
import { statements } from "./statements.ts";
import { unpaid } from "./unpaid.ts";
import { ART, GOODS, METAL, stockBook, VEHICLE } from "../shared/stockBook.ts";
import { commonCredit } from "./commonCredit.ts";
import { words } from "./words.ts";

const GST = ["CGST", "SGST", "UTGST", "IGST", "CESS"];

/** India: GST with its heads, and the state VAT and CST of older books. From memory unless a row says otherwise. */
export const inPack: JurisdictionPack = {
  id: "in",
  country: "IN",
  name: "India",
  currency: "INR",
  authority: "GST portal",
  numberName: "GSTIN",
  numberHint: "15 characters, the first two the state",
  levies: [
    { levy: "CGST", name: "Central tax", with: GST, deducted: true },
    {
      levy: "SGST",
      name: "State tax",
      written: ["SGST/UTGST", "State/UT tax", "UT tax", "UTGST"],
      with: GST,
      deducted: true,
    },
    { levy: "UTGST", name: "Union-territory tax", with: GST, deducted: true },
    { levy: "IGST", name: "Integrated tax", with: GST, deducted: true },
    { levy: "CESS", name: "Compensation cess", with: GST, deducted: true },
    { levy: "SVAT", name: "State VAT, to June 2017", with: ["CST"], deducted: true },
    { levy: "CST", name: "Central sales tax, to June 2017", with: ["SVAT"], deducted: false },
  ],
  defaultLevies: GST,
  regions: states,
  schedules,
  rateNames,
  capitalItems,
  codes,
  accounts,
  classes,
  rules,
  forms: [gstr, ...compositionForms, oldVat],
  rhythms,
  roundings,
  bases: [accrual("CGST Act s.12 and 13")],
  due,
  furtherDays,
  holidays: { country: "IN" },
  correction,
  claims,
  checks,
  instalments,
  collection,
  noCredit: {
    option: "composition",
    values: ["trader", "manufacturer", "restaurant", "services"],
    source: "CGST s.10(4)",
  },
  creditHolds: [
    {
      id: "furnished",
      name: "until the supplier furnished it and it is in GSTR-2B",
      waitsFor: "the document in GSTR-2B",
      byPaper: false,
      source: "CGST s.16(2)(aa), R.36(4)",
    },
    {
      id: "received",
      name: "until the goods or services are received",
      waitsFor: "the receipt of the goods or services",
      byPaper: false,
      source: "CGST s.16(2)(b)",
    },
  ],
  statements,
  rateChanges: [
    {
      supply: "services",
      invoicedBefore: "higher",
      invoicedAfter: "lower",
      says: "of supply, invoice and payment two came before the change",
      source: "CGST s.14",
    },
    {
      supply: "goods",
      invoicedBefore: "all",
      invoicedAfter: "delivered",
      says: "goods bear the rate of their invoice, or of the day on which it had to be issued",
      source: "CGST s.12(2), s.31; N 66/2017-CT",
    },
  ],
  rateMoves,
  unpaid,
  yearly: annualReturn,
  stockBook: stockBook({
    levy: "CGST",
    sales: SLABS.map(({ value }) => `MAR${value}`),
    purchases: ["PU"],
    kinds: [GOODS, VEHICLE, ART, METAL],
    rate: "in.I18",
    source: "CGST Rules R.32(5); N 8/2018-CTR for vehicles",
  }),
  schemes: [commonCredit],
  creditNotes: "netted",
  options: [
    {
      id: "turnover",
      name: "Turnover of the year before, all states",
      values: [
        { value: "upto-5-crore", name: "up to 5 crore: HSN with 4 digits" },
        { value: "above-5-crore", name: "above 5 crore: HSN with 6 digits" },
      ],
      source: "N 78/2020-CT",
    },
    {
      id: "deposits",
      name: "Deposits of the first two months, where returns are quarterly",
      values: [
        { value: "fixed", name: "fixed sum: 35 % of the quarter before" },
        { value: "self", name: "self-assessed: tax of the month less credit" },
      ],
      source: "CGST Rules R.61(3)",
    },
    {
      id: "composition",
      name: "Composition levy",
      values: [
        { value: "no", name: "no" },
        { value: "trader", name: "trader, 0.5 + 0.5 % of taxable turnover" },
        { value: "manufacturer", name: "manufacturer, 0.5 + 0.5 % of turnover" },
        { value: "restaurant", name: "restaurant, 2.5 + 2.5 %" },
        { value: "services", name: "other services, 3 + 3 %" },
      ],
      source: "CGST s.10",
    },
    {
      id: "collection",
      name: "Income tax collected on sales of goods, s.206C",
      values: [
        { value: "no", name: "not collected: turnover of the year before up to 10 crore, or no such goods" },
        { value: "receipt", name: "collected on what customers pay" },
        { value: "invoice", name: "collected on invoices, once over the sum" },
      ],
      source: "Income-tax Act 1961 s.206C(1H), (1)",
    },
    {
      id: "rule37",
      name: "Credit of bills unpaid for 180 days",
      values: [
        { value: "next", name: "reversed in the period after the 180 days" },
        { value: "same", name: "reversed in the period in which they end" },
      ],
      source: "CGST Rules R.37: the tax period immediately following; some use the month itself",
    },
  ],
  standings: [
    { id: "composition", name: "composition taxpayer" },
    { id: "sez", crosses: true, name: "unit or developer of a special economic zone" },
    { id: "uin", name: "holder of a UIN" },
  ],
  dateOrder: "dmy",
  bankNames: ["gst", "gstn", "taxes"],
  watched: ["3.1a.txval", "4A5.igst"],
  words,
  declaration:
    "I hereby solemnly affirm and declare that the information given herein above is true and correct to the best of my knowledge and belief and nothing has been concealed therefrom.",
  late,
  law,
  registers,
  notes: [
    {
      text: "The slabs of 12 and 28 % ended on 22 September 2025 for nearly everything; 40 % began.",
      source: "N 9 to 17/2025-CTR",
    },
    {
      text: "Tax payable is in whole rupees by head; the return's other figures in paise.",
      source: "CGST s.170",
    },
    { text: "Reverse-charge tax is never paid from credit.", source: "CGST s.49(4)" },
  ],
  electronic: false,
  checkNumber: checkGstin,
  regionOfNumber: stateOfGstin,
};
