import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../ledger/account.ts";
import type { Site } from "../supply/circumstances.ts";
import type { SupplyRule } from "../supply/supplyRule.ts";
import { codesByName } from "../tax/expandCode.ts";
import type { RateSchedules, TaxCode } from "../tax/taxCode.ts";
import type { EffectSetup } from "./documentEffect.ts";
import type { RegistrationSetup } from "./registration.ts";

/** A place of the business with the codes usual there. */
export interface PlaceSetup extends Site {
  id: number;
  name: string;
  closedOn: CalendarDate | null;
  saleCode: string | null;
  purchaseCode: string | null;
}

/** An EffectSetup without maps and sets, as it travels to the browser. */
export interface PlainSetup {
  digits: number;
  currency: string;
  today: CalendarDate;
  codes: readonly TaxCode[];
  schedules: RateSchedules;
  accounts: readonly Account[];
  registrations: readonly RegistrationSetup[];
  sealed: readonly { registration: number; periodEnds: readonly CalendarDate[] }[];
  /** Codes that are still on documents but not offered any more. */
  archived: readonly string[];
  rules: readonly SupplyRule[];
  places: readonly PlaceSetup[];
  saleCode: string | null;
  purchaseCode: string | null;
}

export function setupFromPlain(plain: PlainSetup): EffectSetup {
  return {
    digits: plain.digits,
    currency: plain.currency,
    today: plain.today,
    codes: codesByName(plain.codes),
    rules: plain.rules,
    schedules: plain.schedules,
    accounts: plain.accounts,
    registrations: plain.registrations,
    sealed: new Map(plain.sealed.map((one) => [one.registration, new Set(one.periodEnds)])),
  };
}
