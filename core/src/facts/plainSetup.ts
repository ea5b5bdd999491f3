import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../model/account.ts";
import type { Packs } from "../model/packs.ts";
import type { PlaceSetup } from "../model/party.ts";
import type { SupplyRule } from "../model/supplyRule.ts";
import { codesByName } from "../tax/expandCode.ts";
import type { RateSchedules, TaxCode } from "../model/taxCode.ts";
import type { EffectSetup } from "./effect.ts";
import type { RegistrationSetup } from "../model/registration.ts";

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

export function setupFromPlain(plain: PlainSetup, packs: Packs): EffectSetup {
  return {
    packs,
    digits: plain.digits,
    currency: plain.currency,
    today: plain.today,
    codes: codesByName(plain.codes),
    archived: new Set(plain.archived),
    saleCode: plain.saleCode,
    purchaseCode: plain.purchaseCode,
    rules: plain.rules,
    schedules: plain.schedules,
    accounts: plain.accounts,
    registrations: plain.registrations,
    sealed: new Map(plain.sealed.map((one) => [one.registration, new Set(one.periodEnds)])),
  };
}
