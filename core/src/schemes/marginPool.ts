import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import type { MarginPool, SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import type { RateSchedules } from "../model/taxCode.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";
import { rateOn } from "../tax/rateInForce.ts";
import { taxInside } from "./stockBook.ts";

/** What was sold from a pool and bought for it in a period, minor units. */
export interface PoolPeriod extends FilingPeriod {
  sold: number;
  bought: number;
}

/** What a pool is worked out from. */
export interface PoolAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly PoolPeriod[];
  scheme: SchemeInForce;
  schedules: RateSchedules;
  digits: number;
}

/** A period of a pool: its margin after what was carried into it, and what it carries on. */
interface Worked {
  margin: number;
  carried: number;
  tax: number;
  steps: SchemeStep[];
}

/**
 * The tax of the periods of a pool that a return is about, each rounded half up once. What an earlier period lost is taken
 * off the next margin, as an addition to what was bought.
 * @param ends last days of the periods that are on the return
 * @throws FiscalError `tax/no-rate`
 * @source VAT Notice 718, global accounting; VATCA 2010 s.87(8); UStG § 25a(4)
 */
export function marginPool(
  rule: MarginPool,
  around: PoolAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const steps: SchemeStep[] = [];
  let carried = -answer(around, rule.settings.brought);
  let owed = 0;
  for (const [index, period] of around.periods.entries()) {
    const worked = poolOf(rule, around, period, { first: index === 0, carried });
    carried = worked.carried;
    if (!ends.has(period.to)) continue;
    steps.push(...worked.steps);
    owed += worked.tax;
  }
  return { steps, owed };
}

function answer({ scheme, digits }: PoolAround, setting: string | undefined): number {
  const text = setting === undefined ? undefined : scheme.settings[setting];
  return text === undefined || text === "" ? 0 : Math.abs(parseAmount(text, digits));
}

function poolOf(
  rule: MarginPool,
  around: PoolAround,
  period: PoolPeriod,
  { first, carried }: { first: boolean; carried: number },
): Worked {
  const { to, sold, bought } = period;
  const show = (amount: number) => displayAmount(amount, around.digits);
  const rate = rateOn(around.schedules, rule.rate, to);
  const opening = first ? answer(around, rule.settings.openingStock) : 0;
  const left = around.scheme.to === to ? answer(around, rule.settings.closingStock) : 0;
  const closing = rule.closingAbove !== undefined && taxInside(left, rate) > rule.closingAbove ? left : 0;
  const margin = sold + closing - bought - opening + carried;
  const tax = taxInside(margin, rate);
  const plain = (id: string, words: string, amount: number, arithmetic = show(amount)): SchemeStep => ({
    id: `${id}-${to}`,
    words,
    arithmetic,
    amount,
  });
  const terms = [
    show(sold),
    ...(closing === 0 ? [] : [`+ ${show(closing)}`]),
    `− ${show(bought)}`,
    ...(opening === 0 ? [] : [`− ${show(opening)}`]),
    ...(carried === 0 ? [] : [`− ${show(-carried)}`]),
  ];
  const inside = `${show(Math.max(0, margin))} × ${rate} / (100 + ${rate}) = ${show(tax)}`;
  const { boxes } = rule;
  const steps: SchemeStep[] = [
    plain("sold", "Sold from the pool, with tax.", sold),
    plain("bought", "Bought for the pool.", bought),
    ...(opening === 0 ? [] : [plain("opening", "Stock at cost when the scheme began, as bought.", opening)]),
    ...(left === 0
      ? []
      : [
          plain(
            "closing",
            closing === 0
              ? "Stock at cost when the scheme ended: the tax on it is small enough to be left alone."
              : "Stock at cost when the scheme ended, as sold.",
            left,
          ),
        ]),
    ...(carried === 0
      ? []
      : [plain("carried", `Negative margin of before ${displayDate(period.from)}, as bought.`, -carried)]),
    plain(
      "margin",
      margin < 0 ? "Margin of the pool, below nought: carried to the next period." : "Margin of the pool.",
      margin,
      `${terms.join(" ")} = ${show(margin)}`,
    ),
    { ...plain("tax", "Tax inside the margin.", tax, inside), ...(boxes.tax ? { box: boxes.tax } : {}) },
    ...(boxes.lessTax && tax !== 0
      ? [{ ...plain("less", "Taken off the value of what was sold.", -tax, inside), box: boxes.lessTax }]
      : []),
    ...(boxes.margin && margin > 0
      ? [
          {
            ...plain("net", "Margin without its tax.", margin - tax, `${show(margin)} − ${show(tax)}`),
            box: boxes.margin,
          },
        ]
      : []),
  ];
  return { margin, carried: Math.min(0, margin), tax, steps };
}
