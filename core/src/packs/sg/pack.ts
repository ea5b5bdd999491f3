import { validate as uenNumber } from "stdnum/lib/cjs/sg/uen.js";
import type { JurisdictionPack, NumberCheck } from "../../model/pack.ts";
import { bareNumber, checkedBy } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { gstF5 } from "./form.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { ART, COLLECTORS, GOODS, METAL, stockBook, VEHICLE } from "../shared/stockBook.ts";
import { partialExemption } from "./partialExemption.ts";
import { words } from "./words.ts";

const uen = checkedBy(uenNumber, "GST registration number", "9 or 10 characters as a UEN, or M and 9 digits");

/** The older form has no check rule that is known. */
function checkNumber(text: string): NumberCheck {
  const bare = bareNumber(text);
  if (/^M[2-9R]\d{7}[A-Z\d]$/.test(bare)) return { ok: true, number: bare };
  return uen(bare);
}

/** Singapore, GST. From memory of the law unless a row says otherwise. */
export const sg: JurisdictionPack = {
  id: "sg",
  country: "SG",
  name: "Singapore",
  currency: "SGD",
  authority: "IRAS",
  numberName: "GST registration number",
  numberHint: "a UEN of 9 or 10 characters, or M and 9 more",
  levies: [{ levy: "GST", name: "Goods and Services Tax", deducted: true }],
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms: [gstF5],
  rhythms,
  roundings,
  bases,
  due,
  holidays: { country: "SG" },
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "higher",
      invoicedAfter: "higher",
      election: true,
      says: "the higher of what was paid and what was delivered before bears the old rate, after the change by election",
      source: "GST Act s 39 and 39A",
    },
  ],
  unpaid,
  stockBook: stockBook({
    levy: "GST",
    sales: ["MS"],
    purchases: ["MSP"],
    kinds: [GOODS, VEHICLE, ART, COLLECTORS, METAL],
    rate: "sg.STD",
    source: "GST (General) Regulations, gross margin scheme; from memory",
  }),
  schemes: [partialExemption],
  creditNotes: "netted",
  dateOrder: "dmy",
  bankNames: ["iras", "gst"],
  watched: ["1", "7"],
  words,
  declaration: "I declare that the information given in this return is true and complete.",
  late,
  law,
  notes: [
    {
      text: "Registration is compulsory above S$1 million of taxable turnover in a calendar year.",
      source: "GSTA First Schedule",
    },
    {
      text: "A credit note keeps the rate of the original supply.",
      source: "e-Tax guides on the rate changes of 2023 and 2024",
    },
    {
      text: "All input tax is claimable while exempt supplies stay within S$40,000 a month and 5 % of all supplies.",
      source: "Regs reg. 28; from memory",
    },
  ],
  electronic: false,
  checkNumber,
};
