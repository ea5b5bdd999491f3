import type { JurisdictionPack } from "../../model/pack.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { declaration, due, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { nineBoxes, nineBoxesBefore2021 } from "./form.ts";
import { notes } from "./notes.ts";
import { globalAccounting } from "./globalAccounting.ts";
import { flatRate } from "./flatRate.ts";
import { instalments } from "./instalments.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { partialExemption } from "./partialExemption.ts";
import { rateNames, schedules } from "./rates.ts";
import { retail } from "./retail.ts";
import { classes, rules } from "./rules.ts";
import { checkVatNumber } from "./vatNumber.ts";
import { unpaid } from "./unpaid.ts";
import { stockBook } from "../shared/stockBook.ts";
import { statements } from "./statements.ts";
import { words } from "./words.ts";
import { EUROPEAN_UNION } from "../eu/union.ts";
import { checks } from "./checks.ts";

/** United Kingdom, Value Added Tax. Sources stand beside each row of the data. */
export const gb: JurisdictionPack = {
  id: "gb",
  aliases: ["uk"],
  country: "GB",
  name: "United Kingdom",
  currency: "GBP",
  authority: "HMRC",
  numberName: "VAT registration number",
  numberHint: "9 digits, with or without GB",
  levies: [{ levy: "VAT", name: "Value Added Tax", deducted: true }],
  regions: [{ code: "NIR", name: "Northern Ireland", aliases: ["NI", "XI"] }],
  schedules,
  rateNames,
  capitalItems,
  codes,
  accounts,
  classes,
  rules,
  forms: [nineBoxes, nineBoxesBefore2021],
  rhythms,
  roundings,
  bases,
  due,
  holidays: { country: "GB", regions: ["ENG"] },
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "all",
      invoicedAfter: "higher",
      election: true,
      says: "what was paid before keeps the rate of that day, and what was delivered before may keep it",
      source: "VATA 1994 s.6 and s.88",
    },
  ],
  schemes: [flatRate, globalAccounting, partialExemption, retail],
  unpaid,
  stockBook: stockBook({
    levy: "VAT",
    sales: ["MGS"],
    purchases: ["MGP"],
    rate: "gb.STD",
    source: "VATA 1994 s.50A; VAT Notice 718, section 3",
  }),
  creditNotes: "netted",
  options: [
    {
      id: "payments",
      name: "Payment",
      values: [
        { value: "with-return", name: "with the return" },
        { value: "on-account", name: "on account, above £2.3 million a year: no seven days more" },
      ],
      source: "VAT Notice 700/60",
    },
    {
      id: "annualPayments",
      name: "Interim payments, where the return is annual",
      values: [
        { value: "monthly", name: "nine of a tenth of the year before" },
        { value: "quarterly", name: "three of a quarter of the year before" },
      ],
      source: "VAT Notice 732",
    },
  ],
  instalments,
  union: EUROPEAN_UNION,
  elsewhere: "Great Britain",
  dateOrder: "dmy",
  statements,
  bankNames: ["hmrc", "vat"],
  watched: ["4", "6"],
  words,
  checks,
  declaration,
  late,
  law,
  notes,
  electronic: true,
  checkNumber: checkVatNumber,
};
