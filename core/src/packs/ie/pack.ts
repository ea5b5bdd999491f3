import { validate as vatNumber } from "stdnum/lib/cjs/ie/vat.js";
import type { JurisdictionPack } from "../../model/pack.ts";
import { checkedBy } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { forms } from "./form.ts";
import { oneStop } from "./oneStop.ts";
import { DISTANCE_SELLING, ELECTRONIC } from "../eu/oneStopShop.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { apportionment } from "./apportionment.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { lowValuePool } from "./marginPool.ts";
import { tradingDetails } from "./tradingDetails.ts";
import { stockBook } from "../shared/stockBook.ts";
import { words } from "./words.ts";
import { EUROPEAN_UNION } from "../eu/union.ts";
import { BOTH_SIDES } from "../shared/checks.ts";

/** Ireland, Value-Added Tax. Everything from memory of the law unless a row says otherwise. */
export const ie: JurisdictionPack = {
  id: "ie",
  country: "IE",
  name: "Ireland",
  currency: "EUR",
  authority: "Revenue",
  numberName: "VAT number",
  numberHint: "7 digits and one or two letters, with or without IE",
  levies: [{ levy: "VAT", name: "Value-Added Tax", deducted: true }, oneStop.levy],
  defaultLevies: ["VAT"],
  schedules: { ...schedules, ...oneStop.schedules },
  rateNames: { ...rateNames, ...oneStop.rateNames },
  capitalItems,
  codes: [...codes, ...oneStop.codes],
  accounts,
  classes: [...classes, ELECTRONIC],
  rules: [...rules, ...oneStop.rules],
  forms: [...forms, oneStop.form],
  rhythms: [...rhythms, ...oneStop.rhythms],
  roundings,
  bases: [...bases, ...oneStop.bases],
  due: [...oneStop.due, ...due],
  holidays: { country: "IE" },
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "all",
      invoicedAfter: "paid",
      says: "the rate of the day on which the tax is due counts: of the invoice, or of the payment before it",
      source: "VATCA 2010 s.46 and s.74; from memory",
    },
  ],
  goodsShare: {
    over: { of: 2, parts: 3 },
    services: ["R13", "R9"],
    goods: "S23",
    says: "one rate for all of the price",
    source: "VATCA 2010 s.41; not for food and drink; from memory",
  },
  unpaid,
  schemes: [lowValuePool, apportionment],
  yearly: tradingDetails,
  stockBook: stockBook({
    levy: "VAT",
    sales: ["MGS"],
    purchases: ["MGP"],
    rate: "ie.STD",
    source: "VATCA 2010 s.87; Revenue, margin scheme for second-hand goods",
  }),
  creditNotes: "netted",
  options: [
    {
      id: "filing",
      name: "Returns and payments",
      levies: ["VAT"],
      values: [
        { value: "online", name: "both through ROS, by the 23rd" },
        { value: "paper", name: "one of them otherwise, by the 19th" },
      ],
      source: "VATCA 2010 s.76",
    },
  ],
  activities: [DISTANCE_SELLING],
  registers: oneStop.registers,
  union: EUROPEAN_UNION,
  dateOrder: "dmy",
  bankNames: ["revenue", "vat"],
  watched: ["T1", "T2"],
  words,
  checks: [BOTH_SIDES, oneStop.check],
  declaration: "I declare that the figures in this return are true and complete.",
  late,
  law,
  notes: [
    {
      text: "Registration is compulsory above €85,000 of goods or €42,500 of services a year (from 2025).",
      source: "VATCA 2010 s.2 and s.6",
    },
    {
      text: "Where goods cost more than two thirds of a price for goods and service together, the rate of the goods applies to all of it.",
      source: "VATCA 2010 s.41",
    },
    {
      text: "Under the moneys received basis only output tax moves to receipt; input tax stays with the invoice.",
      source: "VATCA 2010 s.80",
    },
  ],
  electronic: false,
  checkNumber: checkedBy(vatNumber, "VAT number", "7 digits and a check letter", /^IE/),
};
