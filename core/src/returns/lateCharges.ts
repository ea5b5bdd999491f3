import { displayDate } from "../calendar/displayDate.ts";
import { addDays, addMonths, daysBetween } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { LateCharge, LateWay } from "../model/lateCharge.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { displayAmount } from "../money/amount.ts";
import { exactFromDecimal } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { rateOn } from "../tax/rateInForce.ts";

/** What a return owes and what was done about it. Amounts in minor units. */
export interface LateReturn {
  /** Last days to file and to pay in time. */
  due: CalendarDate;
  payBy: CalendarDate;
  /** When it was filed; null while it is not. */
  filed: CalendarDate | null;
  /** By head where a charge asks for heads, else under an empty name. */
  owed: Readonly<Record<string, number>>;
  /** Money that went to the authority for it. */
  payments: readonly { date: CalendarDate; amount: number }[];
  today: CalendarDate;
}

/** A charge as it stands on a day. */
export interface LateAmount {
  rule: LateCharge;
  amount: number;
  arithmetic: string[];
}

interface Around {
  schedules: RateSchedules;
  digits: number;
}

/**
 * What the law charges for a return that is filed or paid late, as things stand today. Each head of each charge is rounded
 * half up once, as the charge says.
 * @throws FiscalError `tax/no-rate`
 */
export function lateCharges(
  rules: readonly LateCharge[],
  around: Around,
  one: (rule: LateCharge) => LateReturn,
): LateAmount[] {
  return rules.flatMap((rule) => {
    const late = one(rule);
    const start = rule.on === "filing" ? late.due : late.payBy;
    if (start < rule.from || (rule.to !== null && start > rule.to) || late.today <= start) return [];
    const arithmetic: string[] = [];
    let amount = 0;
    for (const [head, owed] of Object.entries(late.owed)) {
      const worked = chargeOf(rule, around, late, owed);
      if (!worked || worked.amount <= 0) continue;
      amount += worked.amount;
      arithmetic.push(...worked.words.map((words) => (head === "" ? words : `${head}: ${words}`)));
    }
    return amount === 0 ? [] : [{ rule, amount, arithmetic }];
  });
}

interface Worked {
  amount: number;
  words: string[];
}

function chargeOf(
  rule: LateCharge,
  { schedules, digits }: Around,
  late: LateReturn,
  owed: number,
): Worked | undefined {
  const { way, on } = rule;
  const show = (amount: number) => displayAmount(amount, digits);
  const start = on === "filing" ? late.due : late.payBy;
  const end = on === "filing" ? (late.filed ?? late.today) : late.today;
  if (way.way === "fee") return fee(way, owed, start, end, show);
  // Money counts against the head it is reckoned for in proportion to all heads.
  const unpaid = unpaidOf(late, owed);
  const rounded = (exact: Exact) =>
    rule.rounding ? roundExact(exact, rule.rounding.mode, rule.rounding.step) : roundExact(exact);
  if (way.way === "share") {
    const day = addDays(start, way.after);
    const base = unpaid(day);
    if (end <= day || base <= 0) return undefined;
    const amount = rounded(percentOf(base, way.percent));
    return {
      amount,
      words: [`${show(base)} unpaid on ${displayDate(day)} × ${way.percent} % = ${show(amount)}`],
    };
  }
  if (way.way === "monthly") return monthly(way, { start, end, unpaid, show, rounded });
  return yearly(way, schedules, { start, end, unpaid, show, rounded });
}

interface Running {
  start: CalendarDate;
  end: CalendarDate;
  /** What is unpaid at the end of a day. */
  unpaid: (day: CalendarDate) => number;
  show: (amount: number) => string;
  rounded: (exact: Exact) => number;
}

function unpaidOf({ owed, payments }: LateReturn, own: number): Running["unpaid"] {
  const all = Object.values(owed).reduce((sum, amount) => sum + Math.max(0, amount), 0);
  return (day) => {
    const paid = payments.filter(({ date }) => date <= day).reduce((sum, { amount }) => sum + amount, 0);
    if (all === 0) return 0;
    return Math.max(0, own - roundExact({ n: BigInt(paid) * BigInt(Math.max(0, own)), d: BigInt(all) }));
  };
}

function percentOf(amount: number, percent: string): Exact {
  const { n, d } = exactFromDecimal(percent);
  return { n: n * BigInt(amount), d: d * 100n };
}

function monthly(
  { percent, after, begun, most, downTo = 1 }: Extract<LateWay, { way: "monthly" }>,
  { start, end, unpaid, show, rounded }: Running,
): Worked | undefined {
  const first = addDays(start, after);
  let base = 0;
  let months = 0;
  for (let no = 1; no <= most; no += 1) {
    const before = begun ? addMonths(first, no - 1) : addDays(addMonths(first, no), -1);
    if (end <= before) break;
    const left = unpaid(before);
    if (left <= 0) break;
    base += left - (left % downTo);
    months += 1;
  }
  if (base === 0) return undefined;
  const amount = rounded(percentOf(base, percent));
  const what = months === 1 ? show(base) : `${show(base)} in ${months} months`;
  return { amount, words: [`${what} × ${percent} % = ${show(amount)}`] };
}

function yearly(
  { schedule, after }: Extract<LateWay, { way: "yearly" }>,
  schedules: RateSchedules,
  { start, end, unpaid, show, rounded }: Running,
): Worked | undefined {
  const stretches = new Map<string, { base: number; rate: string; days: number }>();
  for (let day = addDays(start, after + 1); day <= end; day = addDays(day, 1)) {
    const base = unpaid(addDays(day, -1));
    if (base <= 0) break;
    const rate = rateOn(schedules, schedule, day);
    const key = `${base}/${rate}`;
    const known = stretches.get(key) ?? { base, rate, days: 0 };
    stretches.set(key, { ...known, days: known.days + 1 });
  }
  if (stretches.size === 0) return undefined;
  let sum: Exact = { n: 0n, d: 1n };
  const words: string[] = [];
  for (const { base, rate, days } of stretches.values()) {
    const { n, d } = percentOf(base, rate);
    const part = { n: n * BigInt(days), d: d * 365n };
    sum = { n: sum.n * part.d + part.n * sum.d, d: sum.d * part.d };
    words.push(`${show(base)} × ${rate} % × ${days} / 365`);
  }
  const amount = rounded(sum);
  return { amount, words: [`${words.join(" + ")} = ${show(amount)}`] };
}

function fee(
  { each, amount, nil, most }: Extract<LateWay, { way: "fee" }>,
  owed: number,
  start: CalendarDate,
  end: CalendarDate,
  show: (amount: number) => string,
): Worked | undefined {
  const days = daysBetween(start, end);
  if (days <= 0) return undefined;
  const one = owed <= 0 ? (nil ?? 0) : amount;
  const times = { day: days, "28 days": Math.ceil(days / 28), month: monthsBegun(start, end), once: 1 }[each];
  const sum = Math.min(most, one * times);
  if (sum <= 0) return undefined;
  const unit = each === "day" ? "days" : each === "month" ? "months begun" : "times 28 days begun";
  const words =
    each === "once" ? show(sum) : `${times} ${unit} × ${show(one)}, at most ${show(most)} = ${show(sum)}`;
  return { amount: sum, words: [words] };
}

function monthsBegun(start: CalendarDate, end: CalendarDate): number {
  let months = 0;
  while (addMonths(start, months) < end) months += 1;
  return months;
}
