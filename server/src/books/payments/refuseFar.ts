import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { isFar } from "@fiscalon/core/calendar/farDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { Work } from "../../base/work.ts";

/**
 * Money moves about when it is said to: no payment is of 1900.
 * @throws FiscalError `payment/far-date`
 */
export function refuseFar({ today, zone }: Work, date: string): void {
  if (!isFar(date, today)) return;
  throw new FiscalError(
    "payment/far-date",
    `${displayDate(date)} is far from today, ${displayDate(today)} (${zone}). Correct the date.`,
    "date",
  );
}
