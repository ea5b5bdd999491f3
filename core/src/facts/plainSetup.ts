import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../ledger/account.ts";
import type { RateSchedules, TaxCode } from "../tax/taxCode.ts";
import type { EffectSetup } from "./documentEffect.ts";
import type { RegistrationSetup } from "./registration.ts";

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
  saleCode: string | null;
  purchaseCode: string | null;
}

export function setupFromPlain(plain: PlainSetup): EffectSetup {
  return {
    digits: plain.digits,
    today: plain.today,
    codes: new Map(plain.codes.map((code) => [code.code, code])),
    schedules: plain.schedules,
    accounts: plain.accounts,
    registrations: plain.registrations,
    sealed: new Map(plain.sealed.map((one) => [one.registration, new Set(one.periodEnds)])),
  };
}
