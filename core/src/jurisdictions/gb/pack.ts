import type { JurisdictionPack } from "../pack.ts";
import { accounts } from "./accounts.ts";
import { correction, declaration, due, rhythms, roundings } from "./calendar.ts";
import { codes } from "./codes.ts";
import { nineBoxes } from "./form.ts";
import { schedules } from "./rates.ts";
import { checkVatNumber } from "./vatNumber.ts";

/** United Kingdom, Value Added Tax. Sources stand beside each row of the data. */
export const gb: JurisdictionPack = {
  id: "gb",
  country: "GB",
  name: "United Kingdom",
  currency: "GBP",
  authority: "HMRC",
  numberName: "VAT registration number",
  levies: [{ levy: "VAT", name: "Value Added Tax" }],
  schedules,
  codes,
  accounts,
  forms: [nineBoxes],
  rhythms,
  roundings,
  due,
  correction,
  declaration,
  checkNumber: checkVatNumber,
};
