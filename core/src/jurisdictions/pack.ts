import type { Frequency } from "../calendar/filingPeriods.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../ledger/account.ts";
import type { ReturnForm } from "../returns/returnForm.ts";
import type { Rounding } from "../tax/rounding.ts";
import type { RateSchedules, TaxCode } from "../tax/taxCode.ts";

/** A rhythm of filing as the authority offers it. `anchor` is any month end on which a period ends. */
export interface FilingRhythm {
  id: string;
  name: string;
  frequency: Frequency;
  anchor: CalendarDate;
}

/** `months` whole months after the period end, held to the end of that month, then `days` more. */
export interface DueRule {
  months: number;
  days: number;
  source: string;
}

export type NumberCheck = { ok: true; number: string } | { ok: false; message: string };

/**
 * Limits under which an error of an earlier period may go on the next return: up to `amount`, or up to
 * `share` of the turnover box and not above `ceiling`. Amounts in minor units, share a percentage.
 */
export interface CorrectionRule {
  amount: number;
  share: string;
  turnoverBox: string;
  ceiling: number;
  yearsBack: number;
  source: string;
}

/** A jurisdiction as data. Every pack has this shape; adding a country adds a folder, never code to the engine. */
export interface JurisdictionPack {
  id: string;
  country: string;
  name: string;
  currency: string;
  authority: string;
  numberName: string;
  levies: readonly { levy: string; name: string }[];
  schedules: RateSchedules;
  codes: readonly TaxCode[];
  accounts: readonly Account[];
  forms: readonly ReturnForm[];
  rhythms: readonly FilingRhythm[];
  roundings: readonly { id: string; name: string; rounding: Rounding; source: string }[];
  due: DueRule;
  correction: CorrectionRule;
  /** The declaration that must be on screen before a return is sent. */
  declaration: string;
  checkNumber: (text: string) => NumberCheck;
}
