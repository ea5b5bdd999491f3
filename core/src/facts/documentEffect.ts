import type { EffectSetup, AssignedFact, DocumentEffect } from "./effect.ts";
import { at } from "../at.ts";
import { FiscalError, withinField } from "../errors.ts";
import { accountsOfRegion } from "../model/account.ts";
import { minorDigits } from "../money/currency.ts";
import { inBaseCurrency } from "../tax/inBaseCurrency.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { documentPostings } from "../ledger/documentPostings.ts";
import { isJournal, taxPointOf } from "../model/document.ts";
import type { DocumentInput } from "../model/document.ts";
import { priceDocument } from "../tax/priceDocument.ts";
import { schedulesAsRecorded } from "../tax/recordedRates.ts";
import type { PricedDocument } from "../model/pricedDocument.ts";
import type { PricingSetup } from "../tax/priceDocument.ts";
import { ROUND_EACH_LINE } from "../model/rounding.ts";
import type { Rounding } from "../model/rounding.ts";
import { chooseCodes } from "../supply/chooseCode.ts";
import type { CodeFinder } from "../supply/chooseCode.ts";
import { checkAttributes } from "../supply/checkAttributes.ts";
import { checkHold } from "./creditHolds.ts";
import { waitsForPayment } from "./cashBasis.ts";
import { documentWarnings } from "./documentWarnings.ts";
import { assignPeriod } from "./assignPeriod.ts";
import { optionsOn, registrationFor } from "../model/registration.ts";
import type { PeriodAssignment } from "./assignPeriod.ts";
import type { RegistrationSetup } from "../model/registration.ts";
import { factsOf } from "./taxFact.ts";
import type { TaxFact } from "./taxFact.ts";

/**
 * What a document does: its priced lines, its journal entry, its tax facts and the periods these fall in, and
 * what a careful person would want to know before posting. The browser shows it, the server posts it.
 * @throws FiscalError with the field's path where the document cannot be computed
 */
export function documentEffect(document: DocumentInput, today: EffectSetup): DocumentEffect {
  const setup = setupOf(document, today);
  checkAttributes(document, setup);
  checkHold(document, setup);
  const { priced, printed } = pricedInBoth(document, setup);
  const facts = factsOf(document, priced, setup)
    .map((fact) => assigned(fact, document, priced, setup))
    .filter(({ held }) => held || !document.opening);
  const effect = {
    priced,
    printed,
    postings: documentPostings(
      document,
      priced,
      accountsOfRegion(setup.accounts, document.site?.region),
      setup.digits,
    ),
    facts,
    ledgerDate: ledgerDateOf(document.date, setup, document.site?.region),
  };
  return { ...effect, warnings: documentWarnings(document, effect, setup) };
}

/** The set-up as the document knows it: with the rates that were recorded with it, where it names any. */
function setupOf({ recordedRates }: DocumentInput, setup: EffectSetup): EffectSetup {
  if (recordedRates === undefined) return setup;
  const schedules = schedulesAsRecorded(setup, recordedRates);
  return schedules === setup.schedules ? setup : { ...setup, schedules };
}

function pricedInBoth(
  document: DocumentInput,
  setup: EffectSetup,
): Pick<DocumentEffect, "priced" | "printed"> {
  const region = document.site?.region ?? undefined;
  const pricing = pricingSetup(setup, taxPointOf(document), region);
  const choices = chooseCodes(document, codeFinder(setup, taxPointOf(document), region));
  const currency = document.currency ?? setup.currency;
  if (currency === setup.currency) {
    const priced = priceDocument(document, choices, pricing);
    return { priced, printed: priced };
  }
  if (isJournal(document)) {
    throw new FiscalError(
      "document/currency",
      `Journals are kept in ${setup.currency}. Type the amounts in it.`,
      "currency",
    );
  }
  const rate = document.exchange?.rate ?? "";
  if (rate === "") {
    throw new FiscalError(
      "document/no-exchange-rate",
      `Type the rate: how many ${setup.currency} one ${currency} is.`,
      "exchange.rate",
    );
  }
  const digits = minorDigits(currency);
  const printed = priceDocument(document, choices, { ...pricing, digits });
  const exchange = { rate, fromDigits: digits, toDigits: setup.digits };
  return { priced: withinField("exchange", () => inBaseCurrency(printed, exchange)), printed };
}

/** The set-up as pricing wants it: each levy is rounded as its registration in force says. */
export function pricingSetup(setup: EffectSetup, on: CalendarDate, region?: string): PricingSetup {
  const { schedules, digits, registrations } = setup;
  const roundings = new Map<string, Rounding>();
  const roundingOf = (levy: string): Rounding => {
    const known = roundings.get(levy);
    if (known) return known;
    const inForce =
      registrationFor(registrations, levy, on, undefined, region) ?? registrations.find((r) => r.from <= on);
    const rounding = inForce?.rounding ?? ROUND_EACH_LINE;
    roundings.set(levy, rounding);
    return rounding;
  };
  const deducts = (levy: string): boolean => {
    const inForce = registrationFor(registrations, levy, on, undefined, region);
    if (!inForce) return true;
    const pack = setup.packs.byId(inForce.pack);
    const chosen = optionsOn(pack, inForce, on)[pack.noCredit?.option ?? ""];
    return chosen === undefined || !pack.noCredit?.values.includes(chosen);
  };
  return { schedules, digits, roundingOf, deducts };
}

/** Where codes are found on a day: rules that need a registration hold while it is in force. */
export function codeFinder(setup: EffectSetup, on: CalendarDate, region?: string): CodeFinder {
  return {
    ...setup,
    registeredFor: (levy) => registrationFor(setup.registrations, levy, on, undefined, region) !== undefined,
  };
}

function assigned(
  fact: TaxFact,
  document: DocumentInput,
  priced: PricedDocument,
  setup: EffectSetup,
): AssignedFact {
  const registration = registrationFor(
    setup.registrations,
    fact.levy,
    fact.taxPoint,
    setup.codes.get(fact.code)?.pack,
    at(priced.lines, fact.line - 1).circumstances["place"],
  );
  const lateTags = fact.lateTags ?? fact.tags;
  const plain = fact.lateTags === undefined ? fact : withoutLateTags(fact);
  if (!registration) return { ...plain, registration: null, period: null, held: false };
  const { bases } = setup.packs.byId(registration.pack);
  if (
    fact.awaits !== null ||
    waitsForPayment(fact, { kind: document.kind, gross: priced.gross }, registration, bases)
  ) {
    return { ...plain, registration: registration.id, period: null, held: true };
  }
  const period = periodOf(registration, fact.taxPoint, setup);
  const tags = period?.late ? lateTags : fact.tags;
  return { ...plain, tags, registration: registration.id, period, held: false };
}

function withoutLateTags({ lateTags: _, ...fact }: TaxFact): TaxFact {
  return fact;
}

/** Periods found before by set-up: thousands of documents share a few dozen days. */
const periods = new WeakMap<EffectSetup, Map<string, PeriodAssignment | null>>();

function periodOf(
  registration: RegistrationSetup,
  taxPoint: CalendarDate,
  setup: EffectSetup,
): PeriodAssignment | null {
  const ofSetup = periods.get(setup) ?? new Map<string, PeriodAssignment | null>();
  periods.set(setup, ofSetup);
  const key = `${registration.id} ${taxPoint}`;
  const known = ofSetup.get(key);
  if (known !== undefined) return known;
  const sealed = setup.sealed.get(registration.id) ?? new Set<CalendarDate>();
  const period = assignPeriod(registration, taxPoint, sealed) ?? null;
  ofSetup.set(key, period);
  return period;
}

/**
 * Nothing is posted into a period that is sealed for any registration: the ledger of those days stays as it was. Where a
 * levy is registered region by region, the registrations of other regions do not count.
 */
export function ledgerDateOf(
  documentDate: CalendarDate,
  setup: EffectSetup,
  region?: string | null,
): CalendarDate {
  let date = documentDate;
  for (const registration of setup.registrations) {
    if (isElsewhere(registration, setup, region)) continue;
    const sealed = setup.sealed.get(registration.id);
    if (!sealed || sealed.size === 0) continue;
    const period = assignPeriod(registration, date, sealed);
    if (period?.late) date = period.reported.from;
  }
  return date;
}

function isElsewhere(
  one: RegistrationSetup,
  { registrations }: EffectSetup,
  region: string | null | undefined,
): boolean {
  if (!region || !one.region || one.region === region) return false;
  return registrations.some((other) => other.pack === one.pack && other.region === region);
}
