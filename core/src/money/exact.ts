import { FiscalError } from "../errors.ts";

/**
 * An exact rational number `n / d` with `d > 0`. Amounts before rounding are kept like this, because a
 * tax-inclusive price divided by 1.2 has no finite decimal form. Not reduced to lowest terms unless asked.
 */
export interface Exact {
  readonly n: bigint;
  readonly d: bigint;
}

export const ZERO: Exact = { n: 0n, d: 1n };

const DECIMAL = /^([+-]?)(\d*)(?:\.(\d*))?$/;

/**
 * Reads a decimal string such as `"12.50"` exactly.
 * @throws FiscalError `money/not-a-number` when the text is not a plain decimal
 */
export function exactFromDecimal(text: string): Exact {
  const match = DECIMAL.exec(text.trim());
  const digits = match ? (match[2] ?? "") + (match[3] ?? "") : "";
  if (!match || digits === "") {
    throw new FiscalError("money/not-a-number", `"${text}" is not a number. Write it like 1234.50.`);
  }
  const value = BigInt(digits) * (match[1] === "-" ? -1n : 1n);
  return { n: value, d: 10n ** BigInt(match[3]?.length ?? 0) };
}

/** The whole number `value` as an Exact. `value` must be a safe integer. */
export function exactFromInteger(value: number): Exact {
  return { n: BigInt(value), d: 1n };
}

export function add(a: Exact, b: Exact): Exact {
  if (a.d === b.d) return { n: a.n + b.n, d: a.d };
  return { n: a.n * b.d + b.n * a.d, d: a.d * b.d };
}

export function subtract(a: Exact, b: Exact): Exact {
  return add(a, negate(b));
}

export function multiply(a: Exact, b: Exact): Exact {
  return { n: a.n * b.n, d: a.d * b.d };
}

/** @throws FiscalError `money/division-by-zero` */
export function divide(a: Exact, b: Exact): Exact {
  if (b.n === 0n) throw new FiscalError("money/division-by-zero", "This would divide by zero.");
  return b.n > 0n ? { n: a.n * b.d, d: a.d * b.n } : { n: -a.n * b.d, d: a.d * -b.n };
}

export function negate(a: Exact): Exact {
  return { n: -a.n, d: a.d };
}

/** Negative, zero or positive as `a` is less than, equal to or greater than `b`. */
export function compare(a: Exact, b: Exact): number {
  const difference = a.n * b.d - b.n * a.d;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

/**
 * `a` written with at most `digits` decimals, cut (not rounded) after them; trailing zeros dropped.
 * An ellipsis marks that digits were cut. For showing arithmetic, never for computing on.
 * @example exactToText({ n: 1n, d: 3n }, 4) // "0.3333…"
 */
export function exactToText(a: Exact, digits: number): string {
  const scale = 10n ** BigInt(digits);
  const magnitude = a.n < 0n ? -a.n : a.n;
  const scaled = (magnitude * scale) / a.d;
  const cut = scaled * a.d !== magnitude * scale;
  const whole = (scaled / scale).toString();
  const fraction = (scaled % scale).toString().padStart(digits, "0");
  const shown = cut ? `${fraction}…` : fraction.replace(/0+$/, "");
  return `${a.n < 0n ? "-" : ""}${whole}${shown === "" || digits === 0 ? "" : `.${shown}`}`;
}
