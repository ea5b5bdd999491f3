import type { JurisdictionPack } from "../../model/pack.ts";
import { checkUnionNumber } from "../eu/vatNumber.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { annualReturn, preliminaryReturn } from "./form.ts";
import { oneStop } from "./oneStop.ts";
import { DISTANCE_SELLING, ELECTRONIC } from "../eu/oneStopShop.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { totalMargin } from "./marginPool.ts";
import { stockBook } from "../shared/stockBook.ts";
import { words } from "./words.ts";
import { EUROPEAN_UNION } from "../eu/union.ts";

/** Germany, the member of the European Union that is worked out. From memory of the law unless a row says otherwise. */
export const de: JurisdictionPack = {
  id: "eu-de",
  country: "DE",
  name: "Germany",
  currency: "EUR",
  authority: "the tax office",
  numberName: "VAT id",
  numberHint: "9 digits, with or without DE",
  levies: [{ levy: "VAT", name: "Value added tax", deducted: true }, oneStop.levy],
  defaultLevies: ["VAT"],
  schedules: { ...schedules, ...oneStop.schedules },
  rateNames: { ...rateNames, ...oneStop.rateNames },
  capitalItems,
  codes: [...codes, ...oneStop.codes],
  accounts,
  classes: [...classes, ELECTRONIC],
  rules: [...rules, ...oneStop.rules],
  forms: [preliminaryReturn, annualReturn, oneStop.form],
  rhythms: [...rhythms, ...oneStop.rhythms],
  roundings,
  bases: [...bases, ...oneStop.bases],
  due: [...oneStop.due, ...due],
  holidays: { country: "DE" },
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "delivered",
      invoicedAfter: "delivered",
      says: "the rate of the day on which it is delivered or performed counts, whenever it is invoiced or paid",
      source: "UStG § 27(1)",
    },
  ],
  schemes: [totalMargin],
  stockBook: stockBook({
    levy: "VAT",
    sales: ["M19"],
    purchases: ["MG"],
    rate: "eu-de.STD",
    paper: "Ankaufsbeleg",
    source: "UStG § 25a, records by § 25a(6)",
  }),
  creditNotes: "netted",
  options: [
    {
      id: "extension",
      name: "Permanent extension",
      levies: ["VAT"],
      values: [
        { value: "no", name: "no" },
        { value: "yes", name: "yes, one month more" },
      ],
      source: "UStDV § 46 to 48",
    },
    {
      id: "adviser",
      name: "Annual return",
      levies: ["VAT"],
      values: [
        { value: "no", name: "prepared by the business itself" },
        { value: "yes", name: "prepared by an adviser" },
      ],
      source: "AO § 149(2) and (3)",
    },
  ],
  aliases: ["de", "eu"],
  activities: [DISTANCE_SELLING],
  registers: oneStop.registers,
  union: EUROPEAN_UNION,
  dateOrder: "dmy",
  bankNames: ["finanzamt", "umsatzsteuer", "ust"],
  watched: ["81", "66"],
  words,
  checks: [
    oneStop.check,
    {
      id: "turnover-limit",
      kind: "turnover",
      codes: ["KU"],
      limits: [{ from: 2025, year: 100_000_00, yearBefore: 25_000_00 }],
      says: "Sales as a small business come to {amount} in {year}, more than {limit}.",
    },
  ],
  declaration:
    "I declare that the information in this return is true and complete to the best of my knowledge.",
  late,
  law,
  notes: [
    {
      text: "Filed monthly where last year's tax was above €9,000 (€7,500 up to 2024), otherwise quarterly.",
      source: "UStG § 18(2)",
    },
    {
      text: "Restaurant food was at the standard rate in 2024 and 2025 and is reduced again from 2026; drinks are always at the standard rate.",
      source: "UStG § 12(2)",
    },
    {
      text: "The tax of 81, 86, 89 and 93 comes from bases in whole euros, so it may differ from the ledger by cents.",
      source: "form UStVA",
    },
  ],
  electronic: false,
  checkNumber: (text) => {
    const check = checkUnionNumber("DE", text);
    return check.ok ? { ok: true, number: `DE${check.number}` } : check;
  },
};
