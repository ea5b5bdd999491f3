import { addDays, addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { schemeOn } from "../model/scheme.ts";
import type { SchemeInForce, SchemeResult, SchemeStep, TurnoverRate } from "../model/scheme.ts";
import type { Component, Direction, RateSchedules, Treatment } from "../model/taxCode.ts";
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
  schedules: RateSchedules;
  digits: number;
}

/** Whether a sale makes the turnover of a scheme. */
export function isTurnover(
  { takes, outside }: TurnoverRate,
  { code, treatment, direction }: Pick<SchemeFact, "code" | "treatment" | "direction">,
): boolean {
  return direction === "sale" && takes.includes(treatment) && !outside.includes(code);
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
export function setAside(
  rule: TurnoverRate,
  group: Pick<SchemeFact, "code" | "treatment" | "direction">,
): "all" | "deduction" | "nothing" {
  if (group.direction === "sale") return isTurnover(rule, group) ? "all" : "nothing";
  if (group.treatment === "import") return "deduction";
  return rule.replaces.includes(group.treatment) ? "all" : "nothing";
}

/**
 * The tax of a period as a rate of its turnover, with what stays deductible. Rounded half up once for each rate. What
 * belongs to an earlier period bears the rate of that one.
 * @throws FiscalError `scheme/no-rate`
 * @source SI 1995/2518 part VIIA; VAT Notice 733
 */
export function turnoverRateScheme(rule: TurnoverRate, around: SchemePeriod): SchemeResult {
  const steps = [
    ...around.periods.flatMap((period) => stepsOfPeriod(rule, around, period)),
    ...assetSteps(rule, around),
  ];
  const inBox = (box: string) =>
    steps.filter((step) => step.box === box).reduce((sum, { amount }) => sum + amount, 0);
  return { steps, owed: inBox(rule.boxes.tax) - inBox(rule.boxes.input) };
}

function stepsOfPeriod(rule: TurnoverRate, around: SchemePeriod, period: FilingPeriod): SchemeStep[] {
  const { facts, digits, current } = around;
  const show = (amount: number) => displayAmount(amount, digits);
  const isCurrent = period.to === current;
  const of = isCurrent ? "" : `Of the period to ${period.to}: `;
  const own = facts.filter(({ ownEnd }) => ownEnd === period.to);
  const sold = own.filter((fact) => fact.reported && isTurnover(rule, fact));
  if (!isCurrent && sold.length === 0) return [];
  const turnover = grossOf(sold);
  const test = limitedCost(rule, around, period, own);
  const byRate = new Map<string, { amount: number; words: string; days: CalendarDate[] }>();
  for (const fact of sold) {
    const { rate, words } = ratesOn(rule, around, fact.taxPoint, test?.limited ?? false);
    const known = byRate.get(rate);
    const days = [...(known?.days ?? []), fact.taxPoint];
    byRate.set(rate, { amount: grossOf([fact]) + (known?.amount ?? 0), words, days });
  }
  return [
    {
      id: `turnover-${period.to}`,
      words: `${of}Turnover with tax: standard, reduced, zero-rated, exempt and exported sales.`,
      arithmetic: show(turnover),
      amount: turnover,
      box: rule.boxes.turnover,
    },
    ...(test ? [{ ...test.step, words: of + test.step.words }] : []),
    ...[...byRate].map(([rate, { amount, words, days }]) => {
      const percent = exactFromDecimal(rate);
      const tax = roundExact({ n: percent.n * BigInt(amount), d: percent.d * 100n });
      return {
        id: `tax-${period.to}-${rate}`,
        words: of + words,
        arithmetic: `${show(amount)} × ${rate} % = ${show(tax)}`,
        amount: tax,
        box: rule.boxes.tax,
        days,
      };
    }),
  ];
}

function assetSteps(rule: TurnoverRate, { capital, digits }: SchemePeriod): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return capital
    .filter(({ code, purchase }) => isDeductedAsset(rule, code, purchase))
    .flatMap(({ document, line, number, net, tax, recoverable }) => {
      const own = {
        words: `${number}, line ${line}: goods for the business, dear enough to be deducted the ordinary way.`,
        arithmetic: `${show(net)} + ${show(tax)} = ${show(net + tax)}`,
      };
      return [
        { id: `capital-${document}-${line}`, ...own, amount: recoverable, box: rule.boxes.input },
        { id: `capital-net-${document}-${line}`, ...own, amount: net, box: rule.boxes.purchases },
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
 * The rate of a scheme on a day, as a decimal of a percent, and what it is in words.
 * @throws FiscalError `scheme/no-rate`
 */
export function ratesOn(
  { rates, firstYear, limitedCost: test }: TurnoverRate,
  { schemes, registered, schedules }: Pick<SchemePeriod, "schemes" | "registered" | "schedules">,
  day: CalendarDate,
  limited: boolean,
): { rate: string; words: string } {
  const chosen = schemeOn(schemes, day)?.settings[rates.by];
  const own = chosen === undefined ? undefined : rates.schedules[chosen];
  const schedule = limited && test ? test.schedule : own;
  const row = schedule === undefined ? undefined : rowInForce(schedules[schedule], day);
  if (!row) {
    throw new FiscalError(
      "scheme/no-rate",
      `The scheme has no rate for "${chosen}" on ${day}. Choose another setting, or add a rate for that day.`,
      "schemes",
    );
  }
  const { rate, source } = row;
  if (firstYear === undefined || day >= addMonths(registered, 12))
    return { rate, words: `Turnover at ${rate} % (${source}).` };
  const reduced = exactToText(subtract(exactFromDecimal(rate), exactFromDecimal(firstYear)), 4);
  return {
    rate: reduced,
    words: `Turnover at ${rate} % less ${firstYear} in the first year of registration, to ${addDays(addMonths(registered, 12), -1)} (${source}).`,
  };
}
