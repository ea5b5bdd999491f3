import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../model/account.ts";
import type { Posting } from "../model/posting.ts";
import type { PricedDocument } from "../model/pricedDocument.ts";
import type { CodeFinder } from "../supply/chooseCode.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import type { PeriodAssignment } from "./assignPeriod.ts";
import type { RegistrationSetup } from "../model/registration.ts";
import type { TaxFact } from "./taxFact.ts";

/** A client's set-up as far as a document's effect depends on it. Plain data, so the browser can hold it too. */
export interface EffectSetup extends CodeFinder {
  digits: number;
  /** Of the books, ISO 4217. */
  currency: string;
  today: CalendarDate;
  schedules: RateSchedules;
  accounts: readonly Account[];
  registrations: readonly RegistrationSetup[];
  /** By registration id, the ends of its sealed periods. */
  sealed: ReadonlyMap<number, ReadonlySet<CalendarDate>>;
}

export interface AssignedFact extends TaxFact {
  registration: number | null;
  period: PeriodAssignment | null;
  /** It is on no return yet: on the cash basis until the document is paid, or until what its credit waits for is there. */
  held: boolean;
}

export interface DocumentEffect {
  /** In the currency of the books; facts and postings come from it. */
  priced: PricedDocument;
  /** In the document's own currency, as it is printed; the same where that is the currency of the books. */
  printed: PricedDocument;
  postings: Posting[];
  facts: AssignedFact[];
  /** The day the journal entry carries: the document's, or the first day of the period a late item falls in. */
  ledgerDate: CalendarDate;
  warnings: DocumentWarning[];
}

/** Something to know before posting. `line` from 1, null for the whole document. */
export interface DocumentWarning {
  code: string;
  text: string;
  line: number | null;
  /** A code that would put it right. */
  take?: string;
}
