import { FiscalError } from "../errors.ts";
import { exactFromDecimal } from "./exact.ts";
import { roundExact } from "./roundExact.ts";

/** Amounts as they mostly are, short enough for a safe integer whatever the currency. */
const PLAIN = /^(\d{1,11})(?:\.(\d{1,4}))?$/;

/**
 * Reads an amount in major units (`"1234.50"`) as whole minor units of a currency with `digits` decimals.
 * Never rounds: more decimals than the currency has are refused.
 * @throws FiscalError `money/not-a-number`, `money/too-precise`, `money/too-large`
 */
export function parseAmount(text: string, digits: number): number {
  const plain = PLAIN.exec(text);
  const fraction = plain?.[2] ?? "";
  if (plain && fraction.length <= digits) return Number(plain[1] + fraction.padEnd(digits, "0"));
  const exact = exactFromDecimal(text);
  const scaled = { n: exact.n * 10n ** BigInt(digits), d: exact.d };
  if (scaled.n % scaled.d !== 0n) {
    throw new FiscalError(
      "money/too-precise",
      `${text} has more decimals than the currency; ${digits} are possible. Round it first.`,
    );
  }
  return roundExact(scaled);
}

/** Whole minor units as a plain decimal string in major units: `formatAmount(-5, 2)` is `"-0.05"`. */
export function formatAmount(minor: number, digits: number): string {
  const text = String(Math.abs(minor)).padStart(digits + 1, "0");
  const whole = text.slice(0, text.length - digits);
  const sign = minor < 0 ? "-" : "";
  return digits === 0 ? sign + whole : `${sign}${whole}.${text.slice(-digits)}`;
}

/** As formatAmount, with a comma between thousands, for reading: `"1,234.50"`. A true minus sign marks negatives. */
export function displayAmount(minor: number, digits: number): string {
  const [whole = "", fraction] = formatAmount(Math.abs(minor), digits).split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  return (minor < 0 ? "−" : "") + (fraction === undefined ? grouped : `${grouped}.${fraction}`);
}

/**
 * An exact decimal of major units as it is shown: thousands apart, a true minus, at least the decimals of the currency.
 * @param text as `exactToText` gives it: no more decimals than it has
 */
export function displayDecimal(text: string, digits: number): string {
  const [whole = "", fraction = ""] = text.replace("-", "−").split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  return digits === 0 && fraction === "" ? grouped : `${grouped}.${fraction.padEnd(digits, "0")}`;
}
