import { validate as irdNumber } from "stdnum/lib/cjs/nz/ird.js";
import type { JurisdictionPack } from "../../model/pack.ts";
import { checkedBy } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { capitalItems } from "./capitalItems.ts";
import { claims } from "./claims.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { entertainment } from "./entertainment.ts";
import { gst101a } from "./form.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { words } from "./words.ts";

/** New Zealand, GST. From memory of the law unless a row says otherwise. */
export const nz: JurisdictionPack = {
  id: "nz",
  country: "NZ",
  name: "New Zealand",
  currency: "NZD",
  authority: "Inland Revenue",
  numberName: "GST number",
  numberHint: "8 or 9 digits",
  levies: [{ levy: "GST", name: "Goods and services tax", deducted: true }],
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms: [gst101a],
  rhythms,
  roundings,
  bases,
  due,
  holidays: { country: "NZ" },
  correction,
  claims,
  unpaid,
  schemes: [entertainment],
  capitalItems,
  creditNotes: "netted",
  options: [
    {
      id: "creditNotes",
      name: "Credit notes",
      values: [
        { value: "netted", name: "netted in boxes 5 and 11" },
        { value: "statutory", name: "as adjustments in boxes 13 and 9" },
      ],
      source: "IR375, GSTA s 25",
    },
  ],
  dateOrder: "dmy",
  bankNames: ["ird", "inland", "gst"],
  watched: ["5", "11"],
  words,
  declaration: "I declare that the information in this return is true and correct.",
  late,
  law,
  notes: [
    { text: "Registration is compulsory above $60,000 of supplies in twelve months.", source: "GSTA s 51" },
    { text: "A period to 31 March is due on 7 May, one to 30 November on 15 January.", source: "IR375" },
    {
      text: "Taxable supply information has replaced tax invoices since 1 April 2023.",
      source: "GSTA s 19E; from memory",
    },
  ],
  electronic: false,
  checkNumber: checkedBy(irdNumber, "GST number", "8 or 9 digits, the last a check digit"),
};
