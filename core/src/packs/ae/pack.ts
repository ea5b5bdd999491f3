import type { JurisdictionPack } from "../../model/pack.ts";
import { accrual } from "../shared/bases.ts";
import { checkedByShape } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { due, holidays, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { capitalItems } from "./capitalItems.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { EMIRATES } from "./emirates.ts";
import { vat201 } from "./form.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { ANTIQUE, COLLECTORS, GOODS, METAL, stockBook, VEHICLE } from "../shared/stockBook.ts";
import { apportionment } from "./apportionment.ts";
import { words } from "./words.ts";

/** United Arab Emirates, VAT. From memory of the law unless a row says otherwise. */
export const ae: JurisdictionPack = {
  id: "ae",
  country: "AE",
  name: "United Arab Emirates",
  currency: "AED",
  authority: "FTA",
  numberName: "TRN",
  numberHint: "15 digits, the first a 1",
  levies: [{ levy: "VAT", name: "Value Added Tax", deducted: true }],
  regions: EMIRATES,
  schedules,
  rateNames,
  capitalItems,
  codes,
  accounts,
  classes,
  rules,
  forms: [vat201],
  rhythms,
  roundings,
  bases: [accrual("VAT Law art. 25")],
  due,
  holidays,
  correction,
  claims,
  unpaid,
  options: [
    {
      id: "sixMonths",
      name: "Input tax of bills unpaid for six months",
      values: [
        { value: "next", name: "repaid in the period after the six months" },
        { value: "same", name: "repaid in the period in which they end" },
      ],
      source: "Executive Regulation art. 54",
    },
  ],
  stockBook: stockBook({
    levy: "VAT",
    sales: ["PM"],
    purchases: ["PMG"],
    kinds: [
      GOODS,
      VEHICLE,
      { ...ANTIQUE, name: "Antique, above fifty years" },
      { ...COLLECTORS, name: "Collectors' item" },
      METAL,
      {
        id: "never-taxed",
        name: "Never subject to VAT, such as stock of before 2018",
        off: "the scheme takes only goods that were subject to VAT before",
      },
    ],
    rate: "ae.STD",
    source: "Decree-Law 8/2017 art. 43; Executive Regulation art. 29; VATP002",
  }),
  schemes: [apportionment],
  creditNotes: "netted",
  placeAttribute: "emirate",
  dateOrder: "dmy",
  bankNames: ["fta", "vat"],
  watched: ["8.a", "9.v"],
  words,
  declaration: "I declare that all information provided is true, accurate and complete.",
  late,
  law,
  notes: [
    {
      text: "Registration is compulsory above AED 375,000 of taxable supplies and imports, voluntary from AED 187,500.",
      source: "Law art. 13, 17",
    },
    {
      text: "Input tax not paid within 6 months of the agreed date is repaid until it is.",
      source: "Law art. 55; ER art. 54",
    },
    {
      text: "A designated zone is outside the State for goods and inside for services.",
      source: "Law art. 50, 51",
    },
    { text: "The weekend was Friday and Saturday until the end of 2021.", source: "from memory" },
  ],
  electronic: false,
  checkNumber: checkedByShape(/^1\d{14}$/, "TRN", "15 digits, the first a 1"),
};
