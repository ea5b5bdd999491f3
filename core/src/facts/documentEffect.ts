import type { CalendarDate } from "../calendar/date.ts";
import type { Account } from "../ledger/account.ts";
import { documentPostings } from "../ledger/documentPostings.ts";
import type { Posting } from "../ledger/posting.ts";
import { taxPointOf } from "../tax/documentInput.ts";
import type { DocumentInput } from "../tax/documentInput.ts";
import { priceDocument } from "../tax/priceDocument.ts";
import type { PricedDocument } from "../tax/priceDocument.ts";
import { ROUND_EACH_LINE } from "../tax/rounding.ts";
import type { RateSchedules, TaxCode } from "../tax/taxCode.ts";
import { documentWarnings } from "./documentWarnings.ts";
import type { DocumentWarning } from "./documentWarnings.ts";
import { assignPeriod, registrationFor } from "./registration.ts";
import type { PeriodAssignment, RegistrationSetup } from "./registration.ts";
import { factsOf } from "./taxFact.ts";
import type { TaxFact } from "./taxFact.ts";

/** A client's set-up as far as a document's effect depends on it. Plain data, so the browser can hold it too. */
export interface EffectSetup {
  digits: number;
  today: CalendarDate;
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
  accounts: readonly Account[];
  registrations: readonly RegistrationSetup[];
  /** By registration id, the ends of its sealed periods. */
  sealed: ReadonlyMap<number, ReadonlySet<CalendarDate>>;
}

export interface AssignedFact extends TaxFact {
  registration: number | null;
  period: PeriodAssignment | null;
}

export interface DocumentEffect {
  priced: PricedDocument;
  postings: Posting[];
  facts: AssignedFact[];
  /** The day the journal entry carries: the document's, or the first day of the period a late item falls in. */
  ledgerDate: CalendarDate;
  warnings: DocumentWarning[];
}

/**
 * What a document does: its priced lines, its journal entry, its tax facts and the periods these fall in, and
 * what a careful person would want to know before posting. The browser shows it, the server posts it.
 * @throws FiscalError with the field's path where the document cannot be computed
 */
export function documentEffect(document: DocumentInput, setup: EffectSetup): DocumentEffect {
  const taxPoint = taxPointOf(document);
  const rounding = setup.registrations.find((r) => r.from <= taxPoint)?.rounding ?? ROUND_EACH_LINE;
  const priced = priceDocument(document, { ...setup, rounding });
  const facts = factsOf(document, priced).map((fact) => assigned(fact, setup));
  const effect = {
    priced,
    postings: documentPostings(document, priced, setup.accounts, setup.digits),
    facts,
    ledgerDate: ledgerDateOf(document.date, setup),
  };
  return { ...effect, warnings: documentWarnings(document, effect, setup) };
}

function assigned(fact: TaxFact, setup: EffectSetup): AssignedFact {
  const registration = registrationFor(setup.registrations, fact.levy, fact.taxPoint);
  if (!registration) return { ...fact, registration: null, period: null };
  const sealed = setup.sealed.get(registration.id) ?? new Set<CalendarDate>();
  return {
    ...fact,
    registration: registration.id,
    period: assignPeriod(registration, fact.taxPoint, sealed) ?? null,
  };
}

/** Nothing is posted into a period that is sealed for any registration: the ledger of those days stays as it was. */
function ledgerDateOf(documentDate: CalendarDate, setup: EffectSetup): CalendarDate {
  let date = documentDate;
  for (const registration of setup.registrations) {
    const sealed = setup.sealed.get(registration.id);
    if (!sealed || sealed.size === 0) continue;
    const period = assignPeriod(registration, date, sealed);
    if (period?.late) date = period.reported.from;
  }
  return date;
}
