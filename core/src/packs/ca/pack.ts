import { validate as gstNumber } from "stdnum/lib/cjs/ca/gst.js";
import { validate as qstNumber } from "stdnum/lib/cjs/ca/qst.js";
import { validate as bnNumber } from "stdnum/lib/cjs/ca/bn.js";
import { at } from "../../at.ts";
import { MONTHS } from "../../calendar/months.ts";
import type { JurisdictionPack, NumberCheck } from "../../model/pack.ts";
import { accrual } from "../shared/bases.ts";
import { bareNumber, checkedBy, checkedByShape } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { due, holidays, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { capitalCodes, codes, realProperty } from "./codes.ts";
import { correction } from "./correction.ts";
import { bcPst, combined, gst34, mbRst, qstOnly, skPst, withoutCommission } from "./forms.ts";
import { instalments } from "./instalments.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { turnoverSchemes } from "./quickMethod.ts";
import { simplified } from "./simplified.ts";
import { rateNames, schedules } from "./rates.ts";
import { regions } from "./regions.ts";
import { classes, rules } from "./rules.ts";
import { words } from "./words.ts";

const gst = checkedBy(gstNumber, "GST/HST account", "9 digits, RT and 4 digits");
const qst = checkedBy(qstNumber, "QST account", "10 digits, TQ and 4 digits");
const bn = checkedBy(bnNumber, "business number", "9 digits");
const pst = checkedByShape(/^PST\d{8}$/, "BC PST number", "PST and 8 digits");
const sk = checkedByShape(/^\d{7}$/, "Saskatchewan PST number", "7 digits");

/** The number tells by its letters which account it is. */
function checkNumber(text: string): NumberCheck {
  const bare = bareNumber(text);
  if (bare.startsWith("PST")) return pst(bare);
  if (bare.includes("TQ")) return qst(bare);
  if (/^\d{9}MT\d{4}$/.test(bare)) return bn(bare.slice(0, 9)).ok ? { ok: true, number: bare } : bn(bare);
  if (/^\d{7}$/.test(bare)) return sk(bare);
  if (bare.includes("RT") || !/^\d{9}$/.test(bare)) return gst(bare);
  return { ok: false, message: `${text} is a business number without its account. Add RT and four digits.` };
}

/** Canada: GST, HST, QST and the sales taxes of three provinces. From memory of the law unless a row says otherwise. */
export const ca: JurisdictionPack = {
  id: "ca",
  country: "CA",
  name: "Canada",
  currency: "CAD",
  authority: "CRA",
  numberName: "account number",
  numberHint: "9 digits, RT and 4 digits; QST: 10 digits, TQ and 4 digits; BC: PST and 8 digits",
  levies: [
    {
      levy: "GST",
      name: "Goods and services tax",
      written: ["GST/HST", "TPS"],
      with: ["HST"],
      deducted: true,
    },
    {
      levy: "HST",
      name: "Harmonized sales tax",
      written: ["TVH"],
      with: ["GST"],
      regions: ["ON", "NB", "NL", "NS", "PE"],
      deducted: true,
    },
    {
      levy: "QST",
      name: "Québec sales tax",
      written: ["TVQ"],
      authority: "Revenu Québec",
      regions: ["QC"],
      deducted: true,
    },
    {
      levy: "BCPST",
      name: "BC provincial sales tax",
      short: "BC PST",
      written: ["PST", "BC PST"],
      authority: "British Columbia",
      regions: ["BC"],
      deducted: false,
    },
    {
      levy: "SKPST",
      name: "Saskatchewan provincial sales tax",
      short: "SK PST",
      written: ["PST", "SK PST"],
      authority: "Saskatchewan",
      regions: ["SK"],
      deducted: false,
    },
    {
      levy: "MBRST",
      name: "Manitoba retail sales tax",
      short: "MB RST",
      written: ["RST", "PST"],
      authority: "Manitoba",
      regions: ["MB"],
      deducted: false,
    },
  ],
  defaultLevies: ["GST", "HST"],
  regions,
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms: [
    gst34,
    combined,
    qstOnly,
    bcPst,
    withoutCommission(bcPst, "BC.C"),
    skPst,
    mbRst,
    withoutCommission(mbRst, "MB.6"),
  ],
  rhythms,
  roundings,
  bases: [accrual("ETA s.168")],
  due,
  holidays,
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "all",
      invoicedAfter: "paid",
      says: "tax that became payable or was paid before the change is at the old rate",
      source: "ETA 168; CRA notices on changes of the HST rate",
    },
  ],
  instalments,
  schemes: [...turnoverSchemes(capitalCodes, realProperty), ...simplified],
  yearEnd: [
    {
      id: "meals",
      name: "Meals and entertainment",
      option: ["meals", "yearEnd"],
      yearEnds: "fiscalYear",
      topic: "entertaining",
      share: "50",
      boxes: { "GST/HST": "104", QST: "Q204" },
      says: "on the first return after the fiscal year, or on that of the year where it is filed yearly",
      source: "ETA 236; AQST 457.1; from memory",
    },
  ],
  creditNotes: "statutory",
  options: [
    {
      id: "creditNotes",
      name: "Credit notes",
      levies: ["GST"],
      values: [
        { value: "statutory", name: "on lines 104 and 107, as the Act says" },
        { value: "netted", name: "netted in lines 103 and 106" },
      ],
      source: "ETA 232(3), 225(1)",
    },
    {
      id: "person",
      name: "Who the registrant is",
      levies: ["GST"],
      values: [
        { value: "other", name: "a corporation, a partnership, or any other" },
        { value: "individual", name: "an individual with business income" },
      ],
      source: "ETA 238(1)(a)(ii)",
    },
    {
      id: "meals",
      name: "Meals and entertainment",
      levies: ["GST", "QST"],
      values: [
        { value: "asYouGo", name: "half is deducted as bills arrive (codes -M)" },
        { value: "yearEnd", name: "deducted in full, half added back once the fiscal year is over" },
      ],
      source: "ETA 236; AQST 457.1",
    },
    {
      id: "fiscalYear",
      name: "Last month of the fiscal year",
      levies: ["GST", "QST"],
      values: [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((month) => ({
        value: String(month),
        name: at(MONTHS, month - 1),
      })),
      source: "ETA 123(1), fiscal year",
    },
    {
      id: "allowance",
      name: "Commission of a provincial sales tax",
      levies: ["BCPST", "MBRST"],
      values: [
        { value: "taken", name: "taken: returns are filed and paid in time" },
        { value: "lost", name: "not taken: filed or paid late" },
      ],
      source: "BC Bulletin PST 001; Manitoba bulletin 004: only when filed and paid in time",
    },
    {
      id: "skFiling",
      name: "Saskatchewan returns",
      levies: ["SKPST"],
      values: [
        { value: "paper", name: "on paper, due on the 20th" },
        { value: "online", name: "online, due at the end of the month" },
      ],
      source: "Saskatchewan Finance; from memory",
    },
  ],
  standings: [
    { id: "resale", name: "buys for resale", needs: "its PST number" },
    { id: "exempt", name: "exempt buyer", needs: "a certificate" },
  ],
  dateOrder: "ymd",
  bankNames: ["revenue", "receiver", "gst", "hst", "pst", "qst"],
  watched: ["101", "106", "BC.A"],
  words,
  declaration:
    "I certify that the information given in this return is true, correct and complete in every respect.",
  late,
  law,
  notes: [
    {
      text: "HST is one levy at one rate: it is never split into a federal and a provincial part on an invoice.",
      source: "ETA 165(2)",
    },
    { text: "A credit note keeps the rate of the original invoice.", source: "ETA 232" },
    {
      text: "Provincial sales tax on purchases is part of the cost; relief is given by quoting a number.",
      source: "provincial sales tax acts",
    },
    {
      text: "Registration is compulsory above $30,000 of worldwide taxable supplies in four quarters.",
      source: "ETA 148, 240",
    },
    {
      text: "Input tax credits need the supplier's number from a total of $100, and the buyer's name from $500.",
      source: "Input Tax Credit Information (GST/HST) Regulations",
    },
  ],
  electronic: false,
  checkNumber,
};
