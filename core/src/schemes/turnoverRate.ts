import { displayDate } from "../calendar/displayDate.ts";
import { addDays, addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { schemeOn } from "../model/scheme.ts";
import type { SchemeInForce, SchemeResult, SchemeStep, TurnoverRate } from "../model/scheme.ts";
import type { Component, Direction, RateSchedules, Treatment } from "../model/taxCode.ts";
import { at, textAt } from "../at.ts";
import { FiscalError } from "../errors.ts";
import { displayAmount } from "../money/amount.ts";
import { exactFromDecimal, exactToText, subtract } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { rowInForce } from "../tax/rateInForce.ts";

/** What is sold or bought in a period, summed by what a scheme asks of it. Minor units. */
export interface SchemeFact {
  code: string;
  treatment: Treatment;
  direction: Direction;
  charged: Component["charged"];
  supply: "goods" | "services" | "";
  topic: string | null;
  /** Percent of the tax on it; null where it bears none. */
  rate: string | null;
  taxPoint: CalendarDate;
  /** End of the period it belongs to. */
  ownEnd: CalendarDate;
  /** Whether it is on this return; others of its own period only decide the tests of that period. */
  reported: boolean;
  net: number;
  tax: number;
  recoverable: number;
}

/** A line of a bill for an asset. */
export interface CapitalLine {
  code: string;
  document: number;
  number: string;
  line: number;
  net: number;
  tax: number;
  recoverable: number;
  /** With tax, of all assets on the bill. */
  purchase: number;
}

/** Turnover with tax of a fiscal year: on earlier returns, and on this one. Minor units. */
export interface SliceYear {
  year: CalendarDate;
  before: number;
  now: number;
}

/** What a scheme is worked out from. */
export interface SchemePeriod {
  /** The own periods of the facts, in order of time; `current`: the end of that of the return, where it is one of them. */
  periods: readonly FilingPeriod[];
  current: CalendarDate | null;
  /** When it was in force, with the answers of each time. */
  schemes: readonly SchemeInForce[];
  /** First day of the registration. */
  registered: CalendarDate;
  facts: readonly SchemeFact[];
  capital: readonly CapitalLine[];
  /** Turnover of a fiscal year that earlier returns hold, by the last day of the year; where a first slice is asked for. */
  years: readonly SliceYear[];
  schedules: RateSchedules;
  digits: number;
}

/** What of a fact a scheme asks to tell whether it takes it. */
type Kind = Pick<SchemeFact, "code" | "treatment" | "direction" | "rate">;

/** Whether a sale makes the turnover of a scheme; where rates go by the tax on it, it bears some. */
export function isTurnover(
  { takes, outside, rates }: TurnoverRate,
  { code, treatment, direction, rate }: Kind,
): boolean {
  const taxed = rates.bands === undefined || rate !== null;
  return direction === "sale" && taxed && takes.includes(treatment) && !outside.includes(code);
}

/** Whether a line is for an asset, one purchase with others on the bill, dear enough for its tax to stay deductible. */
export function isDeductedAsset({ capital }: TurnoverRate, code: string, purchase: number): boolean {
  return capital !== undefined && capital.codes.includes(code) && Math.abs(purchase) >= capital.from;
}

/** What the assets among the lines of a bill come to with tax. */
export function assetPurchase(
  { capital }: TurnoverRate,
  lines: readonly Pick<SchemeFact, "code" | "net" | "tax">[],
): number {
  return lines
    .filter(({ code }) => capital?.codes.includes(code))
    .reduce((sum, { net, tax }) => sum + net + tax, 0);
}

/** What of a group of facts a scheme replaces: all of it, only what is deducted of it, or nothing. */
export function setAside(rule: TurnoverRate, group: Kind): "all" | "deduction" | "nothing" {
  if (group.direction === "sale") return isTurnover(rule, group) ? "all" : "nothing";
  const deductible = rule.outside.includes(group.code) && rule.capital?.codes.includes(group.code) !== true;
  if (deductible) return "nothing";
  if (rule.undeducted.includes(group.treatment)) return "deduction";
  return rule.replaces.includes(group.treatment) ? "all" : "nothing";
}

/**
 * The tax of a period as a rate of its turnover, with what stays deductible and what is given back. Rounded half up once
 * for each rate and place of supply. What belongs to an earlier period bears the rate of that one.
 * @throws FiscalError `scheme/no-rate`
 * @source SI 1995/2518 part VIIA and VAT Notice 733; RC4058; ETA 225.1
 */
export function turnoverRateScheme(rule: TurnoverRate, around: SchemePeriod): SchemeResult {
  const steps = [
    ...around.periods.flatMap((period) => stepsOfPeriod(rule, around, period)),
    ...sliceSteps(rule, around),
    ...assetSteps(rule, around),
  ];
  const inBox = (box: string | undefined) =>
    steps.filter((step) => step.box === box).reduce((sum, { amount }) => sum + amount, 0);
  const { tax, input, credit } = rule.boxes;
  return { steps, owed: inBox(tax) - inBox(input) - (credit === undefined ? 0 : inBox(credit)) };
}

function stepsOfPeriod(rule: TurnoverRate, around: SchemePeriod, period: FilingPeriod): SchemeStep[] {
  const { facts, digits, current } = around;
  const show = (amount: number) => displayAmount(amount, digits);
  const isCurrent = period.to === current;
  const of = isCurrent ? "" : `Of the period to ${displayDate(period.to)}: `;
  const own = facts.filter(({ ownEnd }) => ownEnd === period.to);
  const sold = own.filter((fact) => fact.reported && isTurnover(rule, fact));
  if (!isCurrent && sold.length === 0) return [];
  const turnover = grossOf(sold);
  const test = limitedCost(rule, around, period, own);
  const [box, ...further] = rule.boxes.turnover;
  const whole = {
    words: `${of}Turnover with tax: the sales the scheme takes.`,
    arithmetic: show(turnover),
    amount: turnover,
  };
  return [
    { id: `turnover-${period.to}`, ...whole, ...(box === undefined ? {} : { box }) },
    ...further.map((other) => ({ id: `turnover-${other}-${period.to}`, ...whole, box: other })),
    ...(test ? [{ ...test.step, words: of + test.step.words }] : []),
    ...bandsOf(rule, around, sold, test?.limited ?? false).flatMap((band, _, bands) => {
      // Days tell the sales of a rate apart only where it changed in the period.
      const changed = bands.some((other) => other !== band && other.band === band.band);
      return bandSteps(rule, { to: period.to, of, show, changed }, band);
    }),
  ];
}

/** Sales of a period that bear the same rate. */
interface Band {
  band: string;
  rate: string;
  words: string;
  credit: string | undefined;
  base: number;
  days: CalendarDate[];
  codes: string[];
}

function bandsOf(
  rule: TurnoverRate,
  around: SchemePeriod,
  sold: readonly SchemeFact[],
  limited: boolean,
): Band[] {
  const bands = new Map<string, Band>();
  for (const fact of sold) {
    const { rate, words, credit } = ratesOn(rule, around, fact, limited);
    const band = rule.rates.bands ? (fact.rate ?? "") : "";
    const key = `${band}/${rate}`;
    const known = bands.get(key) ?? { band, rate, words, credit, base: 0, days: [], codes: [] };
    known.base += rule.of === "tax" ? fact.tax : grossOf([fact]);
    known.days.push(fact.taxPoint);
    known.codes.push(fact.code);
    bands.set(key, known);
  }
  // By the tax on the supply, then by time, whatever was entered first.
  return [...bands.values()].sort(
    (a, b) => Number(a.band) - Number(b.band) || (at(a.days, 0) < at(b.days, 0) ? -1 : 1),
  );
}

function bandSteps(
  { boxes }: TurnoverRate,
  {
    to,
    of,
    show,
    changed,
  }: { to: CalendarDate; of: string; show: (amount: number) => string; changed: boolean },
  { band, rate, words, credit, base, days, codes }: Band,
): SchemeStep[] {
  const tax = percentOf(base, rate);
  const step = {
    id: `tax-${to}-${band === "" ? "" : `${band}-`}${rate}`,
    words: of + words,
    arithmetic: `${show(base)} × ${rate} % = ${show(tax)}`,
    amount: tax,
    box: boxes.tax,
    ...(changed ? { days } : {}),
    ...(band === "" ? {} : { codes }),
  };
  if (credit === undefined || boxes.credit === undefined || Number(rate) !== 0) return [step];
  const given = percentOf(base, credit);
  return [
    step,
    {
      ...step,
      id: `credit-${to}-${band}-${credit}`,
      words: `${of}Given back of supplies whose rate is nought.`,
      arithmetic: `${show(base)} × ${credit} % = ${show(given)}`,
      amount: given,
      box: boxes.credit,
    },
  ];
}

function percentOf(amount: number, percent: string): number {
  const { n, d } = exactFromDecimal(percent);
  return roundExact({ n: n * BigInt(amount), d: d * 100n });
}

/** What is given back of the first turnover of a fiscal year; what earlier returns hold of it was used there. */
function sliceSteps({ firstSlice, boxes }: TurnoverRate, { years, digits }: SchemePeriod): SchemeStep[] {
  if (!firstSlice || boxes.credit === undefined) return [];
  const show = (amount: number) => displayAmount(amount, digits);
  const { share, upTo, says } = firstSlice;
  const { credit: box } = boxes;
  return years.flatMap(({ year, before, now }) => {
    const used = Math.min(upTo, Math.max(0, before));
    const of = Math.min(upTo, Math.max(0, before + now)) - used;
    if (of === 0) return [];
    const given = percentOf(of, share);
    const step: SchemeStep = {
      id: `slice-${year}`,
      words: `${share} % of the first ${show(upTo)} of the fiscal year to ${displayDate(year)}, of which earlier returns used ${show(used)} (${says}).`,
      arithmetic: `${show(of)} × ${share} % = ${show(given)}`,
      amount: given,
      box,
    };
    return [step];
  });
}

function assetSteps(rule: TurnoverRate, { capital, digits }: SchemePeriod): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return capital
    .filter(({ code, purchase }) => isDeductedAsset(rule, code, purchase))
    .flatMap(({ document, line, number, net, tax, recoverable }) => {
      const own = {
        words: `${number}, line ${line}: goods for the business whose tax is deducted the ordinary way.`,
        arithmetic: `${show(net)} + ${show(tax)} = ${show(net + tax)}`,
      };
      return [
        { id: `capital-${document}-${line}`, ...own, amount: recoverable, box: rule.boxes.input },
        ...(rule.boxes.purchases === undefined
          ? []
          : [{ id: `capital-net-${document}-${line}`, ...own, amount: net, box: rule.boxes.purchases }]),
      ];
    });
}

function grossOf(facts: readonly SchemeFact[]): number {
  return facts.reduce((sum, { net, tax }) => sum + net + tax, 0);
}

/** Whether a purchase counts as goods in the test of limited cost. */
export function isGoods({ limitedCost: test }: TurnoverRate, fact: SchemeFact): boolean {
  const { direction, supply, code, topic } = fact;
  return (
    direction === "purchase" &&
    supply === "goods" &&
    !test?.notCodes.includes(code) &&
    !(topic !== null && test?.notTopics.includes(topic))
  );
}

/** The test of limited cost of a period, from all of its facts, also those that other returns hold. */
function limitedCost(
  rule: TurnoverRate,
  { digits }: SchemePeriod,
  { from, to }: FilingPeriod,
  facts: readonly SchemeFact[],
): { limited: boolean; step: SchemeStep } | undefined {
  const { limitedCost: test } = rule;
  if (!test) return undefined;
  const show = (amount: number) => displayAmount(amount, digits);
  const turnover = grossOf(facts.filter((fact) => isTurnover(rule, fact)));
  const goods = grossOf(facts.filter((fact) => isGoods(rule, fact)));
  const share = roundExact({ n: BigInt(turnover) * BigInt(test.share), d: 100n });
  const months = monthsIn(from, to);
  const least = roundExact({ n: BigInt(test.aYear) * BigInt(months), d: 12n });
  const limited = goods < share || goods < least;
  const step = {
    id: `limited-cost-${to}`,
    words: limited
      ? "Goods bought are less than a limited cost trader's share: the higher rate."
      : "Goods bought are enough for the rate of the sector.",
    arithmetic: `${show(goods)} against ${test.share} % of ${show(turnover)} = ${show(share)}, and ${show(least)} for ${months} months`,
    amount: goods,
  };
  return { limited, step };
}

/** Whole months of a period, counted from its end: one, three or twelve. */
function monthsIn(from: CalendarDate, to: CalendarDate): number {
  let months = 1;
  while (addMonths(addDays(to, 1), -months) > from) months += 1;
  return months;
}

/**
 * The rate of a scheme for a supply on its day, as a decimal of a percent, what it is in words, and what is given back
 * where it is nought.
 * @throws FiscalError `scheme/no-rate`
 */
export function ratesOn(
  { rates, credits, firstYear, limitedCost: test, of }: TurnoverRate,
  { schemes, registered, schedules }: Pick<SchemePeriod, "schemes" | "registered" | "schedules">,
  { taxPoint: day, rate: onSupply }: Pick<SchemeFact, "taxPoint" | "rate">,
  limited: boolean,
): { rate: string; words: string; credit?: string | undefined } {
  const settings = schemeOn(schemes, day)?.settings ?? {};
  const chosen = rates.by.map((setting) => textAt(settings, setting)).join("/");
  const key = rates.bands ? `${chosen}/${onSupply ?? ""}` : chosen;
  const schedule = limited && test ? test.schedule : rates.schedules[key];
  const row = schedule === undefined ? undefined : rowInForce(schedules[schedule], day);
  if (!row) {
    throw new FiscalError(
      "scheme/no-rate",
      `The scheme has no rate for "${key}" on ${displayDate(day)}. Choose another setting, or add a rate for that day.`,
      "schemes",
    );
  }
  const { rate, source } = row;
  const back = credits?.[chosen];
  const credit = back === undefined ? undefined : rowInForce(schedules[back], day)?.rate;
  const taken = of === "tax" ? "Tax charged" : "Turnover";
  const place = rates.bands ? ` taxed at ${onSupply} %, remitted` : "";
  if (firstYear === undefined || day >= addMonths(registered, 12))
    return { rate, words: `${taken}${place} at ${rate} % (${source}).`, credit };
  const reduced = exactToText(subtract(exactFromDecimal(rate), exactFromDecimal(firstYear)), 4);
  return {
    rate: reduced,
    words: `Turnover at ${rate} % less ${firstYear} in the first year of registration, to ${displayDate(addDays(addMonths(registered, 12), -1))} (${source}).`,
  };
}
