import { validate as vatNumber } from "stdnum/lib/cjs/za/vat.js";
import type { JurisdictionPack } from "../../model/pack.ts";
import { checkedBy } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { bases } from "./bases.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { capitalItems } from "./capitalItems.ts";
import { claims } from "./claims.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { vat201 } from "./form.ts";
import { late } from "./late.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { apportionment } from "./apportionment.ts";
import { words } from "./words.ts";

/** South Africa, VAT. From memory of the law unless a row says otherwise. */
export const za: JurisdictionPack = {
  id: "za",
  country: "ZA",
  name: "South Africa",
  currency: "ZAR",
  authority: "SARS",
  numberName: "VAT number",
  numberHint: "10 digits, the first a 4",
  levies: [{ levy: "VAT", name: "Value-Added Tax", deducted: true }],
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms: [vat201],
  rhythms,
  roundings,
  bases,
  due,
  holidays: { country: "ZA" },
  correction,
  claims,
  rateChanges: [
    {
      invoicedBefore: "all",
      invoicedAfter: "higher",
      says: "what was paid or delivered before the change keeps the old rate",
      source: "Act s. 9, s. 67A",
    },
  ],
  unpaid,
  schemes: [apportionment],
  capitalItems,
  creditNotes: "netted",
  options: [
    {
      id: "filing",
      name: "Returns and payments",
      values: [
        { value: "online", name: "through eFiling, by the last business day" },
        { value: "paper", name: "on paper, by the 25th" },
      ],
      source: "Act s. 28",
    },
  ],
  dateOrder: "ymd",
  bankNames: ["sars", "vat"],
  watched: ["1", "15"],
  words,
  declaration:
    "I declare that the information furnished in this return is true and correct in every respect.",
  late,
  law,
  notes: [
    {
      text: "15 % applies without a break since April 2018: the rises to 15.5 and 16 % announced for 2025 and 2026 were withdrawn.",
      source: "Act s. 7(1); from memory",
    },
    {
      text: "Imported services are declared only as far as they are not for taxable use.",
      source: "Act s. 14",
    },
    { text: "A full tax invoice is needed above R5,000, none up to R50.", source: "Act s. 20" },
  ],
  electronic: false,
  checkNumber: checkedBy(vatNumber, "VAT number", "10 digits, the first a 4"),
};
