import currencyCodes from "currency-codes";
import { FiscalError } from "../errors.ts";

/**
 * How many decimals a currency has by ISO 4217: 2 for GBP, 0 for JPY, 3 for KWD.
 * @throws FiscalError `money/unknown-currency`
 */
export function minorDigits(currency: string): number {
  const record = currencyCodes.code(currency);
  if (!record) {
    throw new FiscalError(
      "money/unknown-currency",
      `${currency} is not an ISO 4217 currency code.`,
      "currency",
    );
  }
  return record.digits;
}

/** Every currency of ISO 4217 by its code, in alphabetical order. */
export function currencies(): string[] {
  return currencyCodes.codes();
}
