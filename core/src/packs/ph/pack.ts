import type { JurisdictionPack } from "../../model/pack.ts";
import { accrual } from "../shared/bases.ts";
import { checkedByShape } from "../shared/numberCheck.ts";
import { accounts } from "./accounts.ts";
import { due, rhythms, roundings } from "./calendar.ts";
import { claims } from "./claims.ts";
import { codes } from "./codes.ts";
import { correction } from "./correction.ts";
import { quarterlyReturn } from "./form.ts";
import { law } from "./law.ts";
import { rateNames, schedules } from "./rates.ts";
import { classes, rules } from "./rules.ts";
import { unpaid } from "./unpaid.ts";
import { words } from "./words.ts";

/** Philippines, VAT. From memory of the law unless a row says otherwise. */
export const ph: JurisdictionPack = {
  id: "ph",
  country: "PH",
  name: "Philippines",
  currency: "PHP",
  authority: "Bureau of Internal Revenue",
  numberName: "TIN",
  numberHint: "9 digits and the branch code",
  levies: [{ levy: "VAT", name: "Value-added tax", deducted: true }],
  schedules,
  rateNames,
  codes,
  accounts,
  classes,
  rules,
  forms: [quarterlyReturn],
  rhythms,
  roundings,
  bases: [accrual("NIRC s. 106, 108, as amended by RA 11976 from 22 January 2024")],
  due,
  holidays: { country: "PH" },
  correction,
  claims,
  unpaid,
  creditNotes: "netted",
  dateOrder: "mdy",
  bankNames: ["bir", "internal revenue", "vat"],
  watched: ["34A", "50B"],
  words,
  declaration:
    "I declare under the penalties of perjury that this return has been made in good faith, verified by me, and to the best of my knowledge and belief is true and correct.",
  law,
  notes: [
    {
      text: "Registration is compulsory above 3,000,000 of gross sales in twelve months.",
      source: "NIRC s. 236(G)",
    },
    {
      text: "Since 22 January 2024 goods and services are reported as invoiced; before, services as paid.",
      source: "RA 11976",
    },
    {
      text: "Government customers withhold 5 % of the price as creditable VAT; the certificates go to item 16.",
      source: "NIRC s. 114(C)",
    },
  ],
  electronic: false,
  checkNumber: checkedByShape(/^\d{9}(\d{3}(\d{2})?)?$/, "TIN", "9 digits, with the branch code 12 or 14"),
};
