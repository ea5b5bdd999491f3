import { displayDate } from "../calendar/displayDate.ts";
import { at, found, textAt } from "../at.ts";
import { addDays, addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { RETAIL_METHODS } from "../model/retailTakings.ts";
import type { RetailMethod, RetailTakings } from "../model/retailTakings.ts";
import type { SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";
import { exactFromDecimal, exactFromInteger, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { rateOn } from "../tax/rateInForce.ts";

/** What a retailer took and bought for resale in a period, minor units, by rate in the order of the rule. */
export interface RetailPeriod extends FilingPeriod {
  /** Takings whose rate is not known. */
  takings: number;
  atRate: readonly number[];
  /** Bought for resale, with tax. */
  bought: readonly number[];
  /** What that is expected to sell for, with tax. */
  expected: readonly number[];
}

/** What takings are taxed from. */
export interface RetailAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly RetailPeriod[];
  scheme: SchemeInForce;
  schedules: RateSchedules;
  digits: number;
}

/** Periods a rolling share of expected selling prices looks back on, itself included. */
const ROLLING = 4;
const TWELFTHS = 12;

/**
 * Output tax of the periods of a return from takings, each rate of each period rounded half up once; the last period of a
 * scheme's year, and that in which it is left, holds what the year comes to beside its periods.
 * @param ends last days of the periods that are on the return
 * @throws FiscalError `tax/no-rate`
 * @source VAT Notices 727, 727/3, 727/4 and 727/5
 */
export function retailTakings(
  rule: RetailTakings,
  around: RetailAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const steps = around.periods
    .filter(({ to }) => ends.has(to))
    .flatMap((period) => [...stepsOf(rule, around, period), ...yearSteps(rule, around, period)]);
  return {
    steps,
    owed: steps.filter(({ box }) => box === rule.boxes.tax).reduce((sum, { amount }) => sum + amount, 0),
  };
}

/** A part of takings that holds tax of a rate. */
interface Part {
  rate: number;
  amount: Exact;
  words: string;
  arithmetic: string;
}

function methodOf(rule: RetailTakings, { scheme }: RetailAround): RetailMethod {
  const chosen = textAt(scheme.settings, rule.settings.method);
  return found(Object.keys(RETAIL_METHODS) as RetailMethod[], (method) => method === chosen, chosen);
}

function answer({ scheme, digits }: RetailAround, setting: string): number {
  const text = scheme.settings[setting];
  return text === undefined || text === "" ? 0 : parseAmount(text, digits);
}

function stepsOf(rule: RetailTakings, around: RetailAround, period: RetailPeriod): SchemeStep[] {
  const { to, takings } = period;
  const show = (amount: number) => displayAmount(amount, around.digits);
  const head: SchemeStep[] = [
    {
      id: `takings-${to}`,
      words: "Takings whose rate is not known at the till.",
      arithmetic: show(takings),
      amount: takings,
    },
    ...(methodOf(rule, around) === "point-of-sale" ? [] : figureSteps(rule, around, period)),
  ];
  const known = rule.rates.flatMap(({ id }, index): Part[] => {
    const amount = at(period.atRate, index);
    if (amount === 0) return [];
    return [
      {
        rate: index,
        amount: exactFromInteger(amount),
        words: `Takings known to be at the ${id} rate.`,
        arithmetic: show(amount),
      },
    ];
  });
  const parts = [...known, ...partsOf(rule, around, [period], period)];
  return [
    ...(takings === 0 ? [] : head),
    ...parts.flatMap((part, index) => taxSteps(rule, around, period, part, `${to}-${index}`)),
  ];
}

/** The figures a share is worked out from. */
function figureSteps(rule: RetailTakings, { digits }: RetailAround, period: RetailPeriod): SchemeStep[] {
  return rule.rates.flatMap(({ id }, index): SchemeStep[] => {
    const [bought, expected] = [at(period.bought, index), at(period.expected, index)];
    const step = (kind: string, words: string, amount: number): SchemeStep[] =>
      amount === 0
        ? []
        : [{ id: `${kind}-${period.to}-${id}`, words, arithmetic: displayAmount(amount, digits), amount }];
    return [
      ...step("bought", `Bought for resale at the ${id} rate, with tax.`, bought),
      ...step(
        "expected",
        `What goods received at the ${id} rate are expected to sell for, with tax.`,
        expected,
      ),
    ];
  });
}

/** What of takings holds tax, by rate, over some periods by the method; `last` the one it is of. */
function partsOf(
  rule: RetailTakings,
  around: RetailAround,
  periods: readonly RetailPeriod[],
  last: RetailPeriod,
): Part[] {
  const takings = periods.reduce((sum, period) => sum + period.takings, 0);
  const method = methodOf(rule, around);
  if (method === "point-of-sale") return unsorted(rule, around, takings);
  if (method === "apportionment-1")
    return sharedBy(rule, around, takings, sums(rule, periods, "bought"), "what was bought for resale");
  if (method === "apportionment-2")
    return sharedBy(rule, around, takings, rollingStock(rule, around, last), "expected selling prices");
  return direct(rule, around, takings, sums(rule, periods, "expected"));
}

/** At the point of sale each rate is told; what is not bears the first one that has tax. */
function unsorted({ rates }: RetailTakings, { digits }: RetailAround, takings: number): Part[] {
  const rate = rates.findIndex(({ schedule }) => schedule !== undefined);
  if (takings === 0) return [];
  const words = `Takings whose rate was not told at the till, at the ${at(rates, rate).id} rate.`;
  return [{ rate, amount: exactFromInteger(takings), words, arithmetic: displayAmount(takings, digits) }];
}

function sums(
  { rates }: RetailTakings,
  periods: readonly RetailPeriod[],
  of: "bought" | "expected",
): number[] {
  return rates.map((_, index) => periods.reduce((sum, period) => sum + at(period[of], index), 0));
}

/** Expected selling prices of the period and the three before; of the first ones with the stock it began with. */
function rollingStock(rule: RetailTakings, around: RetailAround, last: RetailPeriod): number[] {
  const place = around.periods.findIndex(({ to }) => to === last.to);
  const received = sums(rule, around.periods.slice(Math.max(0, place + 1 - ROLLING), place + 1), "expected");
  if (place >= ROLLING) return received;
  return received.map((amount, index) => amount + answer(around, at(rule.settings.opening, index)));
}

function sharedBy(
  { rates }: RetailTakings,
  { digits }: RetailAround,
  takings: number,
  by: readonly number[],
  of: string,
): Part[] {
  const all = by.reduce((sum, amount) => sum + amount, 0);
  const show = (amount: number) => displayAmount(amount, digits);
  if (takings === 0 || all <= 0) return [];
  return rates.flatMap(({ id, schedule }, index): Part[] => {
    const part = at(by, index);
    if (schedule === undefined || part === 0) return [];
    return [
      {
        rate: index,
        amount: multiply(exactFromInteger(takings), { n: BigInt(part), d: BigInt(all) }),
        words: `The share of takings at the ${id} rate, by ${of}.`,
        arithmetic: `${show(takings)} × ${show(part)} / ${show(all)}`,
      },
    ];
  });
}

/** Of the minority goods what they are expected to sell for, and the rest of takings; reduced goods apart. */
function direct(
  rule: RetailTakings,
  around: RetailAround,
  takings: number,
  expected: readonly number[],
): Part[] {
  const show = (amount: number) => displayAmount(amount, around.digits);
  const main = rule.rates.findIndex(({ schedule }) => schedule !== undefined);
  const { id } = at(rule.rates, main);
  const byPrices = (index: number): Part[] => {
    const [rate, amount] = [at(rule.rates, index), at(expected, index)];
    if (rate.schedule === undefined || amount === 0) return [];
    const words = `Goods at the ${rate.id} rate, by expected selling prices.`;
    return [{ rate: index, amount: exactFromInteger(amount), words, arithmetic: show(amount) }];
  };
  const between = rule.rates.flatMap((_, index) => (index === main ? [] : byPrices(index)));
  if (textAt(around.scheme.settings, rule.settings.minority) === id) return [...byPrices(main), ...between];
  const others = expected.filter((_, index) => index !== main).filter((amount) => amount !== 0);
  const rest = Math.max(0, takings - others.reduce((sum, amount) => sum + amount, 0));
  if (takings === 0) return between;
  return [
    {
      rate: main,
      amount: exactFromInteger(rest),
      words: `Takings less what other goods are expected to sell for: at the ${id} rate.`,
      arithmetic: others.length === 0 ? show(takings) : `(${[takings, ...others].map(show).join(" − ")})`,
    },
    ...between,
  ];
}

function taxIn(
  rule: RetailTakings,
  { schedules }: RetailAround,
  part: Part,
  on: CalendarDate,
): { tax: number; rate: string } {
  const { schedule } = at(rule.rates, part.rate);
  const rate = schedule === undefined ? "0" : rateOn(schedules, schedule, on);
  const percent = exactFromDecimal(rate);
  const fraction: Exact = { n: percent.n, d: 100n * percent.d + percent.n };
  return { tax: roundExact(multiply(part.amount, fraction)), rate };
}

function taxSteps(
  rule: RetailTakings,
  around: RetailAround,
  { to }: RetailPeriod,
  part: Part,
  id: string,
): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, around.digits);
  const { tax, rate } = taxIn(rule, around, part, to);
  if (tax === 0) return [];
  const arithmetic = `${part.arithmetic} × ${rate} / (100 + ${rate}) = ${show(tax)}`;
  return [
    { id: `tax-${id}`, words: part.words, arithmetic, amount: tax, box: rule.boxes.tax },
    {
      id: `less-${id}`,
      words: "Tax taken off the value of takings.",
      arithmetic,
      amount: -tax,
      box: rule.boxes.lessTax,
    },
  ];
}

/** What the year of the scheme comes to beside its periods, where the method asks for it and the year is over. */
function yearSteps(rule: RetailTakings, around: RetailAround, period: RetailPeriod): SchemeStep[] {
  const method = methodOf(rule, around);
  if (method !== "apportionment-1" && method !== "direct-2") return [];
  const { scheme, digits } = around;
  const show = (amount: number) => displayAmount(amount, digits);
  let begins = scheme.from;
  while (addMonths(begins, TWELFTHS) <= period.from) begins = addMonths(begins, TWELFTHS);
  const over = addDays(addMonths(begins, TWELFTHS), -1) <= period.to || scheme.to === period.to;
  const year = around.periods.filter(({ from, to }) => begins <= from && to <= period.to);
  if (!over || year.every(({ takings }) => takings === 0)) return [];
  const tax = (parts: readonly Part[], on: CalendarDate) =>
    parts.reduce((sum, part) => sum + taxIn(rule, around, part, on).tax, 0);
  const each = year.reduce((sum, one) => sum + tax(partsOf(rule, around, [one], one), one.to), 0);
  const whole =
    method === "apportionment-1"
      ? partsOf(rule, around, year, period)
      : direct(
          rule,
          around,
          year.reduce((sum, { takings }) => sum + takings, 0),
          soldInYear(rule, around, year),
        );
  const difference = tax(whole, period.to) - each;
  if (difference === 0) return [];
  const arithmetic = `${show(tax(whole, period.to))} of the year − ${show(each)} of its periods = ${show(difference)}`;
  const words = `The year from ${displayDate(begins)} worked out as a whole${method === "direct-2" ? ", with stock at its begin and its end" : ""}.`;
  return [
    { id: `year-${period.to}`, words, arithmetic, amount: difference, box: rule.boxes.tax },
    { id: `year-less-${period.to}`, words, arithmetic, amount: -difference, box: rule.boxes.lessTax },
  ];
}

/** What minority goods were sold for in a year: what was received, with the stock it began with and without that left. */
function soldInYear(rule: RetailTakings, around: RetailAround, year: readonly RetailPeriod[]): number[] {
  const received = sums(rule, year, "expected");
  const minority = textAt(around.scheme.settings, rule.settings.minority);
  const { openingStock, closingStock } = rule.settings;
  return received.map((amount, index) =>
    at(rule.rates, index).id === minority
      ? amount + answer(around, openingStock) - answer(around, closingStock)
      : amount,
  );
}
