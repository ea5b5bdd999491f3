import { displayDate } from "../calendar/displayDate.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import { exactFromDecimal, exactFromInteger, multiply } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import type { CreditCap } from "../model/pricedDocument.ts";
import type { Component, RateSchedules } from "../model/taxCode.ts";
import { percentage } from "./levyStack.ts";
import { rowInForce } from "./rateInForce.ts";

/**
 * The most tax that is deducted on so many items: the tax on a price up to the limit of the day, for each item.
 * @param rate of the component, a percentage
 * @param quantity items in the line, as typed; one where it is not said
 * @returns undefined for components without a cap
 * @throws FiscalError `tax/no-rate` where no limit is in force on the day
 * @source the cap of the component's code; GSTA s 69-10 (AU), ITA Regulations 7307 and ETA 201 (CA)
 */
export function creditCap(
  { levy, cap }: Component,
  rate: string | null,
  quantity: string | undefined,
  on: CalendarDate,
  schedules: RateSchedules,
  digits: number,
): CreditCap | undefined {
  if (!cap || rate === null) return undefined;
  const row = rowInForce(schedules[cap.schedule], on);
  if (!row) {
    throw new FiscalError(
      "tax/no-rate",
      `No limit for the credit of ${levy} is in force on ${displayDate(on)} for this code. Check the tax point or add a row for that day.`,
      "taxPoint",
      { levy, schedule: cap.schedule, taxPoint: on },
    );
  }
  const items = quantity === undefined || quantity.trim() === "" ? "1" : quantity.trim();
  const share = percentage(rate);
  const ofGross: Exact = { n: share.n, d: share.d + share.n };
  const limit = multiply(exactFromDecimal(row.rate), exactFromInteger(10 ** digits));
  const whole = multiply(limit, exactFromDecimal(items));
  return {
    limit: row.rate,
    items,
    of: cap.of,
    rate,
    most: roundExact(multiply(whole, cap.of === "gross" ? ofGross : share)),
  };
}
