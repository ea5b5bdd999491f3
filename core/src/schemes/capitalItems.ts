import { displayDate } from "../calendar/displayDate.ts";
import { addDays, addMonths, endOfMonth, endOfYear, partsOf } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import type { CapitalItem, CapitalItems } from "../model/capitalItem.ts";
import type { SchemeResult, SchemeStep } from "../model/scheme.ts";
import { displayAmount } from "../money/amount.ts";
import { groupBy } from "../groupBy.ts";
import { add, exactFromDecimal, exactFromInteger, exactToText, multiply, subtract } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { at, found, valueAt } from "../at.ts";

/** A stretch of the time in which the tax of an item is adjusted. `weight`: its part of all of it. */
export interface Stretch {
  from: CalendarDate;
  to: CalendarDate;
  weight: Exact;
}

/** What adjustments are worked out from. `periodOn`: the filing period a day lies in, where the registration has one. */
export interface CapitalAround {
  periodOn: (day: CalendarDate) => FilingPeriod | undefined;
  digits: number;
}

/** An adjustment of an item by levy, minor units; above nought more is deducted. `end`: the last day of its return. */
export interface CapitalAdjustment {
  item: CapitalItem;
  stretch: CalendarDate;
  /** The share it is worked out with, in percent. */
  share: string;
  /** That which it is measured against. */
  against: string;
  part: Exact;
  rest: boolean;
  end: CalendarDate;
  amounts: Readonly<Record<string, number>>;
}

const NOTHING: Exact = { n: 0n, d: 1n };

/** The stretches of an item, in order of time. */
export function stretchesOf(
  rule: CapitalItems,
  item: Pick<CapitalItem, "kind" | "firstUse" | "yearEnds">,
  around: CapitalAround,
): Stretch[] {
  const { years } = found(rule.kinds, ({ id }) => id === item.kind, item.kind);
  if (rule.time === "months") return monthsFrom(item.firstUse, years * 12);
  if (rule.time === "months-of-years") return yearsByMonths(item.firstUse, years * 12);
  const weight: Exact = rule.share === "to-date" ? { n: 1n, d: 1n } : { n: 1n, d: BigInt(years) };
  const ends = yearEndsFrom(rule, item, years, around);
  return ends.map((to, index) => ({
    from: index === 0 ? item.firstUse : addDays(at(ends, index - 1), 1),
    to,
    weight,
  }));
}

function yearEndsFrom(
  rule: CapitalItems,
  { firstUse, yearEnds }: Pick<CapitalItem, "firstUse" | "yearEnds">,
  count: number,
  around: CapitalAround,
): CalendarDate[] {
  const next = (end: CalendarDate) => endOfMonth(addMonths(end, 12));
  const initial = rule.time === "first-year" ? [addDays(addMonths(firstUse, 12), -1)] : [];
  const ends = [...initial];
  let end = endOfYear(yearEnds, initial.length > 0 ? addDays(at(initial, 0), 1) : firstUse);
  while (rule.wait !== undefined && !waited(rule.wait, firstUse, end, around)) end = next(end);
  for (; ends.length < count; end = next(end)) ends.push(end);
  return ends;
}

/** Whether the filing period that ends a year begins so many months after that of the first use. */
function waited(
  months: number,
  firstUse: CalendarDate,
  end: CalendarDate,
  { periodOn }: CapitalAround,
): boolean {
  const [bought, last] = [periodOn(firstUse), periodOn(end)];
  // Outside the registration there are no periods: the days themselves tell.
  const begins = addMonths(bought ? addDays(bought.to, 1) : firstUse, months);
  return (last ? last.from : end) >= begins;
}

function monthsFrom(firstUse: CalendarDate, count: number): Stretch[] {
  return Array.from({ length: count }, (_, index) => {
    const to = endOfMonth(addMonths(`${firstUse.slice(0, 8)}01`, index));
    return { from: index === 0 ? firstUse : `${to.slice(0, 8)}01`, to, weight: { n: 1n, d: BigInt(count) } };
  });
}

/** Calendar years by the months of the time that lie in them; that of the first use where it began in its first half. */
function yearsByMonths(firstUse: CalendarDate, count: number): Stretch[] {
  const begins = partsOf(firstUse).day <= 15 ? firstUse : addMonths(firstUse, 1);
  const stretches: Stretch[] = [];
  let left = count;
  let month = `${begins.slice(0, 8)}01`;
  while (left > 0) {
    const inYear = Math.min(left, 13 - partsOf(month).month);
    const to = endOfMonth(addMonths(month, inYear - 1));
    stretches.push({ from: month, to, weight: { n: BigInt(inYear), d: BigInt(count) } });
    month = addMonths(month, inYear);
    left -= inYear;
  }
  return stretches;
}

/**
 * What each stretch of an item adjusts, by what was typed of its use, and what its end leaves to adjust; each rounded half
 * up once a levy. Stretches of which nothing is typed adjust nothing.
 * @source ETA (AE) ER art. 57, 58; UStG § 15a, UStDV §§ 44, 45; VATCA 2010 s.63, 64; SI 1995/2518 part XV; GSTA (AU) Div 129
 */
export function capitalAdjustments(
  rule: CapitalItems,
  item: CapitalItem,
  around: CapitalAround,
): CapitalAdjustment[] {
  const stretches = stretchesOf(rule, item, around);
  const { ended } = item;
  const lived = ended ? stretches.filter(({ from }) => from <= ended.on) : stretches;
  const made: CapitalAdjustment[] = [];
  let against = item.share;
  for (const stretch of lived) {
    const share = item.uses[stretch.to];
    const end = returnOf(rule, stretch.to, around);
    if (share === undefined || end === undefined) continue;
    const weight =
      rule.time === "months-of-years" && ended && ended.on < stretch.to
        ? monthsUpTo(stretch, ended.on)
        : stretch.weight;
    made.push(
      ...adjustment(rule, item, { stretch: stretch.to, share, against, part: weight, rest: false, end }),
    );
    if (rule.share === "to-date") against = share;
  }
  if (ended && ended.how !== "gone" && rule.share === "typed") {
    const end = around.periodOn(ended.on)?.to;
    const part = restAfter(rule, stretches, ended.on);
    const share = ended.how === "taxed" ? "100" : "0";
    if (end !== undefined && part.n > 0n)
      made.push(...adjustment(rule, item, { stretch: ended.on, share, against, part, rest: true, end }));
  }
  return made;
}

/** What of a stretch by months lies before the end of the item; the month of it counts from its second half on. */
function monthsUpTo({ from, weight }: Stretch, on: CalendarDate): Exact {
  const last = partsOf(on);
  const months = last.month - partsOf(from).month + (last.day > 15 ? 1 : 0);
  return { n: BigInt(Math.max(0, Math.min(months, Number(weight.n)))), d: weight.d };
}

/** The part of all the time that is left after an item is gone. */
function restAfter(rule: CapitalItems, stretches: readonly Stretch[], on: CalendarDate): Exact {
  return stretches.reduce((sum, stretch) => {
    if (stretch.to <= on) return sum;
    if (stretch.from > on) return add(sum, stretch.weight);
    const used = rule.time === "months-of-years" ? monthsUpTo(stretch, on) : stretch.weight;
    return add(sum, subtract(stretch.weight, used));
  }, NOTHING);
}

function adjustment(
  { least }: CapitalItems,
  item: CapitalItem,
  of: Omit<CapitalAdjustment, "item" | "amounts">,
): CapitalAdjustment[] {
  const points = subtract(exactFromDecimal(of.share), exactFromDecimal(of.against));
  const factor = multiply(multiply(points, of.part), { n: 1n, d: 100n });
  const amounts = Object.fromEntries(
    Object.entries(item.taxes).map(([levy, tax]) => [
      levy,
      roundExact({ n: factor.n * BigInt(tax), d: factor.d }),
    ]),
  );
  const sum = Object.values(amounts).reduce((total, amount) => total + amount, 0);
  if (sum === 0) return [];
  if (least) {
    const size = points.n < 0n ? { n: -points.n, d: points.d } : points;
    const below = subtract(size, exactFromDecimal(least.points)).n < 0n;
    if (below && (least.upTo === undefined || Math.abs(sum) <= least.upTo)) return [];
  }
  return [{ ...of, item, amounts }];
}

/** The last day of the return an adjustment for a stretch stands on. */
export function returnOf(
  { reported }: CapitalItems,
  stretch: CalendarDate,
  { periodOn }: CapitalAround,
): CalendarDate | undefined {
  const after = { with: 0, next: 1, second: 2 }[reported];
  let period = periodOn(stretch);
  for (let step = 0; step < after && period; step += 1) period = periodOn(addDays(period.to, 1));
  return period?.to;
}

/** What the list of capital items puts on the returns with these last days. */
export function capitalOnReturns(
  rule: CapitalItems,
  items: readonly CapitalItem[],
  ends: ReadonlySet<CalendarDate>,
  around: CapitalAround,
): SchemeResult {
  const made = items.flatMap((item) =>
    capitalAdjustments(rule, item, around).filter(({ end }) => ends.has(end)),
  );
  const steps = made.flatMap((one) => stepsOf(rule, one, around.digits));
  return {
    steps,
    owed: -made.flatMap(({ amounts }) => Object.values(amounts)).reduce((sum, amount) => sum + amount, 0),
  };
}

function stepsOf({ boxes }: CapitalItems, one: CapitalAdjustment, digits: number): SchemeStep[] {
  const { item, stretch, share, against, part, rest, amounts } = one;
  const show = (amount: number) => displayAmount(amount, digits);
  const points = exactToText(subtract(exactFromDecimal(share), exactFromDecimal(against)), 4).replace(
    "-",
    "−",
  );
  const fraction = part.n === part.d ? "" : ` × ${reduced(part)}`;
  const taxes = new Map(Object.entries(item.taxes));
  return Object.entries(amounts).flatMap(([levy, amount]) => {
    const of = boxes[levy];
    if (!of || amount === 0) return [];
    const { box, sign } = amount > 0 ? of.more : of.less;
    const step: SchemeStep = {
      id: `item-${item.no}-${stretch}-${levy}`,
      words: rest
        ? `Item ${item.no}, ${item.name}: what is left of its time when it ended on ${displayDate(stretch)}, at ${share} % in place of ${against} %.`
        : `Item ${item.no}, ${item.name}: use to ${displayDate(stretch)} at ${share} % in place of ${against} %.`,
      arithmetic: `${show(valueAt(taxes, levy))}${fraction} × ${points} % = ${show(amount)}`,
      amount: sign * Math.abs(amount),
      box,
    };
    return [step];
  });
}

function reduced({ n, d }: Exact): string {
  let [a, b] = [n, d];
  while (b > 0n) [a, b] = [b, a % b];
  return `${n / a}/${d / a}`;
}

/** What of tax falls on a period, minor units, exact, and the numbers of the items it is of. */
interface MonthlyPart {
  part: Exact;
  items: number[];
}

/** The months of items that lie in a period, and what of their tax falls on them by levy, minor units, exact. */
export function monthlyParts(
  rule: CapitalItems,
  items: readonly CapitalItem[],
  { from, to }: FilingPeriod,
  around: CapitalAround,
): Map<string, MonthlyPart> {
  const inPeriod = items.flatMap((item) => {
    const { ended } = item;
    const months = stretchesOf(rule, item, around).filter(
      (stretch) => from <= stretch.to && stretch.to <= to && !(ended && stretch.from > ended.on),
    );
    return Object.entries(item.taxes).map(([levy, tax]) => ({
      levy,
      no: item.no,
      part: months.reduce((sum, { weight }) => add(sum, multiply(exactFromInteger(tax), weight)), NOTHING),
    }));
  });
  const byLevy = groupBy(
    inPeriod.filter(({ part }) => part.n !== 0n),
    ({ levy }) => levy,
  );
  return new Map(
    [...byLevy].map(([levy, parts]) => [
      levy,
      { part: parts.reduce((sum, { part }) => add(sum, part), NOTHING), items: parts.map(({ no }) => no) },
    ]),
  );
}

/**
 * Of tax on capital goods of common use that falls on a period, what its share of exempt turnover takes back; rounded half
 * up once a levy.
 * @param turnover of this period, or of the last one before it that had some
 * @source CGST Rules R.43
 */
export function monthlyReversal(
  rule: CapitalItems,
  parts: ReadonlyMap<string, MonthlyPart>,
  turnover: { exempt: number; all: number; of: CalendarDate },
  end: CalendarDate,
  digits: number,
): SchemeResult {
  const show = (amount: number) => displayAmount(amount, digits);
  const { exempt, all } = turnover;
  if (all <= 0 || exempt <= 0) return { steps: [], owed: 0 };
  const steps = [...parts].flatMap(([levy, { part, items }]): SchemeStep[] => {
    const of = rule.boxes[levy];
    const amount = roundExact({ n: part.n * BigInt(Math.min(exempt, all)), d: part.d * BigInt(all) });
    if (!of || amount === 0) return [];
    return [
      {
        id: `month-${levy}-${end}`,
        words: `${levy} on capital goods of common use (items ${items.join(", ")}) that falls on this period: the share of exempt turnover${turnover.of === end ? "" : ` of the period to ${displayDate(turnover.of)}, the last that had some,`} is taken back.`,
        arithmetic: `${show(roundExact(part))} × ${show(exempt)} / ${show(all)} = ${show(amount)}`,
        amount: of.less.sign * amount,
        box: of.less.box,
      },
    ];
  });
  return { steps, owed: steps.reduce((sum, { amount }) => sum + Math.abs(amount), 0) };
}
