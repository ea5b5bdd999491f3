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
 * The payments of a period. Each is rounded once: half up to the minor unit, or as the rule has it.
 * @source VAT Notice 732; ETA 237; GSTA Div 162; CGST Rules R.61(3)
 */
export function instalmentsOf(rule: InstalmentRule, around: InstalmentPeriod): Instalment[] {
  const made: Instalment[] = [];
  for (const [index, to] of instalmentEnds(rule, around.period).entries()) {
    const told = around.told[index];
    const asked = told?.estimate === null || rule.way !== "varied" ? told?.asked : null;
    const amounts =
      typeof asked === "number"
        ? plain(asked, `${displayAmount(asked, around.digits)} as the authority asks for`)
        : WAYS[rule.way]({ rule, around, index, made, estimate: told?.estimate ?? null });
    made.push({ no: index + 1, to, ...amounts });
  }
  return made;
}

type Amounts = Omit<Instalment, "no" | "to">;

/** What one payment is worked out from. `made`: those before it; `estimate`: of the whole period, where there is one. */
interface Asked {
  rule: InstalmentRule;
  around: InstalmentPeriod;
  index: number;
  made: readonly Instalment[];
  estimate: number | null;
}

/** How a payment comes about that the authority did not name, by the way of its rule. */
const WAYS: Readonly<Record<InstalmentRule["way"], (asked: Asked) => Amounts>> = {
  fixed: (asked) =>
    asked.estimate === null
      ? ofPeriodBefore(asked, "There is no period before: type an estimate, or what the authority asks for")
      : shareOfBase(asked, asked.estimate, "as estimated"),
  lesser: lesserOfTwo,
  varied: variedByEstimate,
  actual: whatItComesTo,
};

function plain(amount: number | null, arithmetic: string): Amounts {
  return { amount, heads: [], varied: null, arithmetic };
}

/** A share of what the period before came to, head by head where there are several. */
function ofPeriodBefore(asked: Asked, otherwise: string): Amounts {
  const heads = asked.around.before?.heads;
  if (!heads) return plain(null, otherwise);
  const [only, ...others] = heads;
  if (only && others.length === 0) return shareOfBase(asked, only.amount, "of the period before");
  return byHead(asked, heads);
}

function shareOfBase({ rule, around, index }: Asked, base: number, of: string): Amounts {
  const show = (amount: number) => displayAmount(amount, around.digits);
  if (rule.least !== undefined && base < rule.least)
    return plain(0, `${show(base)} is below ${show(rule.least)}: nothing is to be paid`);
  const share = shareOf(rule, around, index);
  const amount = percentOf(share, Math.max(0, base));
  return plain(amount, `${show(base)} ${of} × ${share} % = ${show(amount)}`);
}

/** The share of what each head came to, as far as that reaches the least. */
function byHead(
  { rule, around, index }: Asked,
  before: readonly { head: string; amount: number }[],
): Amounts {
  const share = shareOf(rule, around, index);
  const { least = 0 } = rule;
  const heads = before
    .filter(({ amount }) => amount > 0 && amount >= least)
    .map(({ head, amount }) => ({ head, of: amount, amount: percentOf(share, amount) }));
  const worked = heads.map(({ head, of }) => `${head} ${displayAmount(of, around.digits)} × ${share} %`);
  return {
    amount: heads.reduce((sum, { amount }) => sum + amount, 0),
    heads: heads.map(({ head, amount }) => ({ head, amount })),
    varied: null,
    arithmetic: worked.join(", ") || "The period before asks for nothing",
  };
}

/** A share of last year, or of this one where that is less; in the first year nothing. */
function lesserOfTwo(asked: Asked): Amounts {
  const { before } = asked.around;
  if (!before) return plain(0, "Nothing is to be paid in the first year");
  const heads = before.heads.map(({ head, amount }) => ({ head, amount: forAYear(amount, before.days) }));
  const last = heads.reduce((sum, { amount }) => sum + amount, 0);
  if (asked.estimate !== null && asked.estimate < last)
    return shareOfBase(asked, asked.estimate, "as estimated");
  return heads.length > 1 ? byHead(asked, heads) : shareOfBase(asked, last, "of the period before");
}

/** The estimate up to the end of a part, less what was due for earlier ones, never below nil. */
function variedByEstimate({ rule, around, index, made, estimate }: Asked): Amounts {
  if (estimate === null) return plain(null, "Type what the authority asks for, or an estimate of the year");
  const show = (amount: number) => displayAmount(amount, around.digits);
  const earlier = made.reduce((sum, { amount }) => sum + (amount ?? 0), 0);
  const upTo = rule.parts.slice(0, index + 1).reduce((sum, part) => sum + Number(part.share), 0);
  const { mode, step } = rule.rounding ?? {};
  const share = { n: BigInt(estimate) * BigInt(upTo), d: 100n };
  const varied = Math.max(0, roundExact(share, mode, step) - earlier);
  const arithmetic = `${show(estimate)} × ${upTo} % − ${show(earlier)}, not below nil = ${show(varied)}`;
  return { ...plain(varied, arithmetic), varied };
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
function whatItComesTo({ around: { actual, digits }, index, made }: Asked): Amounts {
  const show = (amount: number) => displayAmount(amount, digits);
  const heads = at(actual, index).map(({ head, amount }) => {
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

/** What a short period before would have come to in the length of this one's rhythm. */
function forAYear(amount: number, days: number): number {
  if (days >= 365) return amount;
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
