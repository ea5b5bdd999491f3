import type { CalendarDate } from "../calendar/date.ts";
import type { RatioCredit } from "../model/ratioCredit.ts";
import type { SchemeResult } from "../model/scheme.ts";
import type { Component, Direction, Treatment } from "../model/taxCode.ts";
import { displayAmount } from "../money/amount.ts";
import { partInside } from "../money/partInside.ts";

/** What the bills of a rate come to, with tax and with what of other taxes is cost; minor units. */
export interface BilledTotal {
  rate: string;
  total: number;
}

/** What a scheme asks of a fact to tell whether its bill counts. */
interface Billed {
  direction: Direction;
  treatment: Treatment;
  charged: Component["charged"];
  rate: string | null;
}

/** Whether the bill of a fact counts in the totals. */
export function countsInTotals(
  { takes }: RatioCredit,
  { direction, treatment, charged, rate }: Billed,
): boolean {
  return direction === "purchase" && charged === "charged" && rate !== null && takes.includes(treatment);
}

/**
 * Input tax of a period from the totals of its bills, rounded half up once a rate.
 * @param end last day of the return
 * @source Streamlined Accounting (GST/HST) Regulations part IV; RC4022
 */
export function ratioCredit(
  { boxes }: RatioCredit,
  totals: readonly BilledTotal[],
  end: CalendarDate,
  digits: number,
): SchemeResult {
  const show = (amount: number) => displayAmount(amount, digits);
  const steps = totals.flatMap(({ rate, total }) => {
    const credit = partInside(total, rate);
    const whole = `${rate}/${decimalSum(rate)}`;
    return [
      {
        id: `billed-${end}-${rate}`,
        words: `Bills taxed at ${rate} %, with tax and with sales tax that is not deducted.`,
        arithmetic: show(total),
        amount: total,
      },
      {
        id: `credit-${end}-${rate}`,
        words: `Input tax inside the bills taxed at ${rate} %.`,
        arithmetic: `${show(total)} × ${whole} = ${show(credit)}`,
        amount: credit,
        box: boxes.input,
      },
    ];
  });
  return {
    steps,
    owed: -totals.reduce((sum, { rate, total }) => sum + partInside(total, rate), 0),
  };
}

/** A hundred and the rate, as it is written: 9.975 → 109.975. */
function decimalSum(rate: string): string {
  const [whole = "0", rest] = rate.split(".");
  return `${Number(whole) + 100}${rest === undefined ? "" : `.${rest}`}`;
}
