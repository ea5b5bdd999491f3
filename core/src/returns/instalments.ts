import { at } from "../at.ts";
import { addDays, addMonths, daysBetween } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import type { InstalmentRule } from "../model/instalments.ts";
import { displayAmount } from "../money/amount.ts";
import { divide, exactFromDecimal } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

/** What a person typed for one payment: what the authority asks for, what the period is expected to come to. Minor units. */
export interface InstalmentTold {
  asked: number | null;
  estimate: number | null;
}

/** What instalments of a period are worked out from; minor units. */
export interface InstalmentPeriod {
  period: FilingPeriod;
  /** What the period before came to by head, and its days; none before the first. */
  before: { heads: readonly { head: string; amount: number }[]; days: number } | undefined;
  told: readonly InstalmentTold[];
  /** For `actual`: what the period comes to from its first day to the end of each part, by head. */
  actual: readonly (readonly { head: string; amount: number }[])[];
  digits: number;
}

/** One payment of a period. `amount` is null where somebody has to say what the authority asks for, or an estimate. */
export interface Instalment {
  no: number;
  /** End of the months it belongs to. */
  to: CalendarDate;
  amount: number | null;
  heads: { head: string; amount: number }[];
  /** What an estimate makes of it, where it takes the place of what is asked for. */
  varied: number | null;
  arithmetic: string;
}

/** The parts of a period that end inside it, with their last days. */
export function instalmentEnds({ parts }: InstalmentRule, { from, to }: FilingPeriod): CalendarDate[] {
  return parts
    .map(({ months }) => addDays(addMonths(`${from.slice(0, 8)}01`, months), -1))
    .filter((end) => end <= to);
}

/**
 * The payments of a period. Each is rounded half up to the minor unit, once.
 * @source VAT Notice 732; ETA 237; GSTA Div 162; CGST Rules R.61(3)
 */
export function instalmentsOf(rule: InstalmentRule, around: InstalmentPeriod): Instalment[] {
  const made: Instalment[] = [];
  for (const [index, to] of instalmentEnds(rule, around.period).entries()) {
    const due = made.map(({ amount }) => amount ?? 0).reduce((sum, amount) => sum + amount, 0);
    made.push({ no: index + 1, to, ...amountOf(rule, around, index, due, made) });
  }
  return made;
}

type Amounts = Omit<Instalment, "no" | "to">;

function amountOf(
  rule: InstalmentRule,
  around: InstalmentPeriod,
  index: number,
  earlier: number,
  made: readonly Instalment[],
): Amounts {
  const show = (amount: number) => displayAmount(amount, around.digits);
  const { asked, estimate } = around.told[index] ?? { asked: null, estimate: null };
  const share = shareOf(rule, around, index);
  const plain = (amount: number | null, arithmetic: string): Amounts => ({
    amount,
    heads: [],
    varied: null,
    arithmetic,
  });
  if (rule.way === "varied" && estimate !== null) {
    const upTo = rule.parts.slice(0, index + 1).reduce((sum, part) => sum + Number(part.share), 0);
    const varied = Math.max(0, percentOf(String(upTo), estimate) - earlier);
    return {
      ...plain(varied, `${show(estimate)} × ${upTo} % − ${show(earlier)}, not below nil = ${show(varied)}`),
      varied,
    };
  }
  if (asked !== null) return plain(asked, `${show(asked)} as the authority asks for`);
  if (rule.way === "actual") return actualOf(around, index, made);
  const before = around.before && {
    heads: around.before.heads.map(({ head, amount }) => ({
      head,
      amount: forAYear(rule, amount, around.before?.days ?? 365),
    })),
  };
  const known = before?.heads.reduce((sum, { amount }) => sum + amount, 0);
  if (rule.way === "varied" || (known === undefined && (estimate === null || rule.way === "lesser")))
    return plain(rule.way === "lesser" ? 0 : null, unknownWords(rule));
  const base =
    rule.way === "lesser" ? Math.min(known ?? 0, estimate ?? known ?? 0) : (estimate ?? known ?? 0);
  const byHead = estimate === null && before !== undefined && before.heads.length > 1;
  if (!byHead && rule.least !== undefined && base < rule.least)
    return plain(0, `${show(base)} is below ${show(rule.least)}: nothing is to be paid`);
  if (byHead) return amountsByHead(rule, before.heads, share, show);
  const amount = percentOf(share, Math.max(0, base));
  const of = base === known && estimate !== base ? "of the period before" : "as estimated";
  return plain(amount, `${show(base)} ${of} × ${share} % = ${show(amount)}`);
}

/** The share of what each head came to, as far as that reaches the least. */
function amountsByHead(
  { least = 0 }: InstalmentRule,
  before: readonly { head: string; amount: number }[],
  share: string,
  show: (amount: number) => string,
): Amounts {
  const heads = before
    .filter(({ amount }) => amount > 0 && amount >= least)
    .map(({ head, amount }) => ({ head, of: amount, amount: percentOf(share, amount) }));
  return {
    amount: heads.reduce((sum, { amount }) => sum + amount, 0),
    heads: heads.map(({ head, amount }) => ({ head, amount })),
    varied: null,
    arithmetic:
      heads.map(({ head, of }) => `${head} ${show(of)} × ${share} %`).join(", ") ||
      "The period before asks for nothing",
  };
}

function shareOf(
  { parts, shorter }: InstalmentRule,
  { before, period }: InstalmentPeriod,
  index: number,
): string {
  // Months differ by three days at most.
  const isShorter = before !== undefined && before.days * 2 < daysOf(period);
  return isShorter && shorter !== undefined ? shorter : at(parts, index).share;
}

/** What the period came to up to the end of a part, less what its earlier parts came to. */
function actualOf({ actual, digits }: InstalmentPeriod, index: number, made: readonly Instalment[]): Amounts {
  const show = (amount: number) => displayAmount(amount, digits);
  const heads = (actual[index] ?? []).map(({ head, amount }) => {
    const paid = made.flatMap((one) => one.heads.filter((other) => other.head === head));
    const earlier = paid.reduce((sum, one) => sum + one.amount, 0);
    return { head, amount: Math.max(0, amount - earlier), upTo: amount, earlier };
  });
  return {
    amount: heads.reduce((sum, { amount }) => sum + amount, 0),
    heads: heads.map(({ head, amount }) => ({ head, amount })),
    varied: null,
    arithmetic: heads
      .filter(({ upTo }) => upTo !== 0)
      .map(({ head, upTo, earlier }) => `${head} ${show(upTo)} − ${show(earlier)}`)
      .join(", "),
  };
}

function unknownWords({ way }: InstalmentRule): string {
  if (way === "lesser") return "Nothing is to be paid in the first year";
  return way === "varied"
    ? "Type what the authority asks for, or an estimate of the year"
    : "There is no period before: type an estimate, or what the authority asks for";
}

/** What a short period before would have come to in the length of this one's rhythm. */
function forAYear({ way }: InstalmentRule, amount: number, days: number): number {
  if (way !== "lesser" || days >= 365) return amount;
  return roundExact({ n: BigInt(amount) * 365n, d: BigInt(days) });
}

function percentOf(percent: string, amount: number): number {
  const [over = "0", under = "1"] = percent.split("/");
  const share = divide(exactFromDecimal(over), exactFromDecimal(under));
  return roundExact({ n: share.n * BigInt(amount), d: share.d * 100n });
}

/** Days of a period, both ends included. */
export function daysOf({ from, to }: FilingPeriod): number {
  return daysBetween(from, to) + 1;
}
