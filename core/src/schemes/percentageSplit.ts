import type { CalendarDate } from "../calendar/date.ts";
import { textAt } from "../at.ts";
import type { PercentageSplit, SplitSide } from "../model/percentageSplit.ts";
import type { SchemeResult, SchemeStep } from "../model/scheme.ts";
import { displayAmount } from "../money/amount.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { partInside } from "../money/partInside.ts";
import { roundExact } from "../money/roundExact.ts";
import { rateOn } from "../tax/rateInForce.ts";
import type { PoolAround } from "./marginPool.ts";

/**
 * The tax inside the taxable part of takings, and of stock bought, period by period; the part that is free is rounded half
 * up once, and so is the tax inside the rest.
 * @param ends last days of the periods that are on the return
 * @throws FiscalError `tax/no-rate`
 * @source GSTA (AU) Div 123
 */
export function percentageSplit(
  rule: PercentageSplit,
  around: PoolAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const steps: SchemeStep[] = [];
  let owed = 0;
  for (const { to, sold, bought } of around.periods) {
    if (!ends.has(to)) continue;
    const free = percentagesOf(rule, around);
    const rate = rateOn(around.schedules, rule.rate, to);
    const sides: [string, string, SplitSide, number, string, 1 | -1][] = [
      ["sales", "Takings", rule.sales, sold, free.sales, 1],
      ["stock", "Stock bought", rule.stock, bought, free.stock, -1],
    ];
    for (const [id, words, side, amount, percent, sign] of sides) {
      if (amount === 0) continue;
      const part = splitOf(amount, percent, rate);
      steps.push(...stepsOf(`${id}-${to}`, words, side, { ...part, amount, percent, rate }, around.digits));
      owed += sign * part.tax;
    }
  }
  return { steps, owed };
}

function percentagesOf({ setting, norms, own }: PercentageSplit, { scheme }: PoolAround) {
  const norm = norms[textAt(scheme.settings, setting)];
  const typed = (id: string) => textAt(scheme.settings, id) || "0";
  return norm ?? { sales: typed(own.sales), stock: typed(own.stock) };
}

function splitOf(amount: number, percent: string, rate: string) {
  const { n, d } = exactFromDecimal(percent);
  const free = roundExact({ n: BigInt(amount) * n, d: d * 100n });
  return { free, taxable: amount - free, tax: partInside(amount - free, rate) };
}

function stepsOf(
  id: string,
  words: string,
  { boxes }: SplitSide,
  of: { free: number; taxable: number; tax: number; amount: number; percent: string; rate: string },
  digits: number,
): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, digits);
  const { free, taxable, tax, amount, percent, rate } = of;
  return [
    { id: `all-${id}`, words: `${words}, with tax.`, arithmetic: show(amount), amount },
    {
      id: `free-${id}`,
      words: `${words} that are free of tax: ${percent} %.`,
      arithmetic: `${show(amount)} × ${percent} % = ${show(free)}`,
      amount: boxes.free.sign * free,
      box: boxes.free.box,
    },
    {
      id: `tax-${id}`,
      words: "Tax inside the rest.",
      arithmetic: `${show(taxable)} × ${rate} / (100 + ${rate}) = ${show(tax)}`,
      amount: boxes.tax.sign * tax,
      box: boxes.tax.box,
    },
  ];
}
