import type { CalendarDate } from "../calendar/date.ts";
import type { CollectionRates, CollectionRule } from "../model/collection.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { rateOn } from "../tax/rateInForce.ts";

/** What a customer paid, minor units. `collects`: whether collection is done on that day. */
export interface CollectionReceipt {
  date: CalendarDate;
  amount: number;
  collects: boolean;
}

/** A receipt with what is collected on it. `before` and `after` are running totals of the year; `excess` bears the rate. */
export interface CollectedReceipt<Receipt extends CollectionReceipt = CollectionReceipt> {
  receipt: Receipt;
  before: number;
  after: number;
  excess: number;
  /** Percent; null where nothing is above the sum. */
  rate: string | null;
  tax: number;
}

/**
 * What is collected on the receipts of one customer in a fiscal year: the rate of what they pass the sum by, each receipt
 * by itself, half up to the minor unit.
 * @param opening received in the year before these books begin
 * @param receipts in order of time
 * @throws FiscalError `tax/no-rate`
 * @source Income-tax Act 1961 s.206C(1H); CBDT Circular 17/2020
 */
export function collectedOnReceipts<Receipt extends CollectionReceipt>(
  rule: CollectionRule,
  schedules: RateSchedules,
  identified: boolean,
  opening: number,
  receipts: readonly Receipt[],
): CollectedReceipt<Receipt>[] {
  let before = opening;
  return receipts.map((receipt) => {
    const after = before + receipt.amount;
    const within = rule.from <= receipt.date && (rule.to === null || receipt.date <= rule.to);
    const excess = receipt.collects && within ? above(rule, after) - above(rule, before) : 0;
    const rate = excess === 0 ? null : rateOn(schedules, rateOf(rule, identified), receipt.date);
    const row = { receipt, before, after, excess, rate, tax: rate === null ? 0 : percentOf(excess, rate) };
    before = after;
    return row;
  });
}

/** What a customer has paid and owes at the time of an invoice, minor units, as far as it counts. */
export interface CollectionExposure {
  /** Received in the year, advances included. */
  received: number;
  /** Of that, what settles no invoice yet. */
  advances: number;
  /** Invoices of the year that are not paid yet. */
  open: number;
}

/** What is collected with an invoice that passes the sum, or follows one that did. */
export interface CollectedOnInvoice {
  before: number;
  excess: number;
  /** Percent; null where nothing is above the sum. */
  rate: string | null;
  tax: number;
}

/**
 * What an invoice collects where it is done on invoices: the rate of what it passes the sum by together with receipts and
 * unpaid invoices before it. An advance it settles, and that passed the sum by itself, bore it when it came.
 * @throws FiscalError `tax/no-rate`
 * @source Income-tax Act 1961 s.206C(1H), as is done by many sellers; common practice, no source for the order
 */
export function collectedOnInvoice(
  rule: CollectionRule,
  schedules: RateSchedules,
  identified: boolean,
  { received, advances, open }: CollectionExposure,
  invoice: { date: CalendarDate; amount: number },
): CollectedOnInvoice {
  const before = received - advances + open;
  const within = rule.from <= invoice.date && (rule.to === null || invoice.date <= rule.to);
  const onAdvances = above(rule, received) - above(rule, received - advances);
  const passed = above(rule, before + invoice.amount) - above(rule, before);
  const excess = within ? Math.max(0, passed - onAdvances) : 0;
  const rate = excess === 0 ? null : rateOn(schedules, rateOf(rule, identified), invoice.date);
  return { before, excess, rate, tax: rate === null ? 0 : percentOf(excess, rate) };
}

/**
 * What the sale of goods of a kind collects, of all the customer owes for them.
 * @throws FiscalError `tax/no-rate`
 * @source Income-tax Act 1961 s.206C(1), (1F), 206CC
 */
export function collectedByKind(
  kind: CollectionRates,
  schedules: RateSchedules,
  identified: boolean,
  invoice: { date: CalendarDate; amount: number },
): { rate: string; tax: number } {
  const rate = rateOn(schedules, rateOf(kind, identified), invoice.date);
  return { rate, tax: percentOf(invoice.amount, rate) };
}

/** The identification within a customer's number; null where it tells none. */
export function identificationIn({ identification }: CollectionRule, number: string | null): string | null {
  if (number === null) return null;
  const found = new RegExp(identification.pattern).exec(number.toUpperCase().replace(/\s/g, ""));
  return found?.[1] ?? found?.[0] ?? null;
}

function rateOf({ identified, unidentified }: CollectionRates, known: boolean): string {
  return known ? identified : unidentified;
}

function above(rule: CollectionRule, sum: number): number {
  return Math.max(0, sum - rule.above);
}

function percentOf(amount: number, percent: string): number {
  const { n, d } = exactFromDecimal(percent);
  return roundExact({ n: n * BigInt(amount), d: d * 100n });
}
