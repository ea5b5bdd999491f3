import { addDays, addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import type { SchemeInForce, SchemeStep, TurnoverRate } from "../model/scheme.ts";
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
}

/** What a scheme is worked out from. */
export interface SchemePeriod {
  period: FilingPeriod;
  inForce: SchemeInForce;
  /** First day of the registration. */
  registered: CalendarDate;
  facts: readonly SchemeFact[];
  capital: readonly CapitalLine[];
  schedules: RateSchedules;
  digits: number;
}

/** What a scheme puts on a return. */
export interface SchemeResult {
  steps: SchemeStep[];
  /** What its lines make owed, less what they deduct. */
  owed: number;
}

/** Whether a sale makes the turnover of a scheme. */
export function isTurnover(
  { takes, outside }: TurnoverRate,
  { code, treatment, direction }: Pick<SchemeFact, "code" | "treatment" | "direction">,
): boolean {
  return direction === "sale" && takes.includes(treatment) && !outside.includes(code);
}

/** Whether a line is for an asset dear enough for its tax to stay deductible. */
export function isDeductedAsset(
  { capital }: TurnoverRate,
  { code, net, tax }: Pick<SchemeFact, "code" | "net" | "tax">,
): boolean {
  return capital !== undefined && capital.codes.includes(code) && net + tax >= capital.from;
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
 * The tax of a period as a rate of its turnover, with what stays deductible. Rounded half up once for each rate.
 * @throws FiscalError where no rate is in force
 * @source SI 1995/2518 part VIIA; VAT Notice 733
 */
export function turnoverRateScheme(rule: TurnoverRate, around: SchemePeriod): SchemeResult {
  const { facts, digits } = around;
  const show = (amount: number) => displayAmount(amount, digits);
  const sold = facts.filter((fact) => isTurnover(rule, fact));
  const turnover = sold.reduce((sum, { net, tax }) => sum + net + tax, 0);
  const limited = limitedCost(rule, around, turnover);
  const steps: SchemeStep[] = [
    {
      id: "turnover",
      words: "Turnover with tax: standard, reduced, zero-rated, exempt and exported sales.",
      arithmetic: `${show(turnover)}`,
      amount: turnover,
      box: rule.boxes.turnover,
    },
    ...limited.steps,
  ];
  const byRate = new Map<string, { amount: number; words: string }>();
  for (const fact of sold) {
    const { rate, words } = ratesOn(rule, around, fact.taxPoint, limited.is);
    const known = byRate.get(rate);
    byRate.set(rate, { amount: (known?.amount ?? 0) + fact.net + fact.tax, words });
  }
  for (const [rate, { amount, words }] of byRate) {
    const percent = exactFromDecimal(rate);
    const tax = roundExact({ n: percent.n * BigInt(amount), d: percent.d * 100n });
    steps.push({
      id: `tax-${rate}`,
      words,
      arithmetic: `${show(amount)} × ${rate} % = ${show(tax)}`,
      amount: tax,
      box: rule.boxes.tax,
    });
  }
  const assets = around.capital.filter((asset) => isDeductedAsset(rule, asset));
  for (const { document, line, number, net, tax, recoverable } of assets) {
    const words = `${number}, line ${line}: goods for the business of ${show(rule.capital?.from ?? 0)} or more with tax, deducted the ordinary way.`;
    const own = { words, arithmetic: `${show(net)} + ${show(tax)} = ${show(net + tax)}` };
    steps.push(
      { id: `capital-${document}-${line}`, ...own, amount: recoverable, box: rule.boxes.input },
      { id: `capital-net-${document}-${line}`, ...own, amount: net, box: rule.boxes.purchases },
    );
  }
  const inBox = (box: string) =>
    steps.filter((step) => step.box === box).reduce((sum, { amount }) => sum + amount, 0);
  return { steps, owed: inBox(rule.boxes.tax) - inBox(rule.boxes.input) };
}

function limitedCost(
  rule: TurnoverRate,
  { facts, period: { from, to }, digits }: SchemePeriod,
  turnover: number,
): { is: boolean; steps: SchemeStep[] } {
  const { limitedCost: test } = rule;
  if (!test) return { is: false, steps: [] };
  const show = (amount: number) => displayAmount(amount, digits);
  const goods = facts
    .filter(({ direction, supply }) => direction === "purchase" && supply === "goods")
    .filter(({ code, topic }) => !test.notCodes.includes(code) && !test.notTopics.includes(topic ?? ""))
    .reduce((sum, { net, tax }) => sum + net + tax, 0);
  const share = roundExact({ n: BigInt(turnover) * BigInt(test.share), d: 100n });
  const months = monthsIn(from, to);
  const least = roundExact({ n: BigInt(test.aYear) * BigInt(months), d: 12n });
  const is = goods < share || goods < least;
  const compared = `${show(goods)} against ${test.share} % of ${show(turnover)} = ${show(share)}, and ${show(least)} for ${months} months`;
  return {
    is,
    steps: [
      {
        id: "limited-cost",
        words: is
          ? "Goods bought are less than a limited cost trader's share: the higher rate."
          : "Goods bought are enough for the rate of the sector.",
        arithmetic: compared,
        amount: goods,
      },
    ],
  };
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
  { inForce, registered, schedules }: Pick<SchemePeriod, "inForce" | "registered" | "schedules">,
  day: CalendarDate,
  limited: boolean,
): { rate: string; words: string } {
  const chosen = inForce.settings[rates.by];
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
