import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import {
  add,
  compare,
  divide,
  exactFromDecimal,
  exactFromInteger,
  exactToText,
  multiply,
  negate,
  subtract,
} from "@fiscalon/core/money/exact";
import type { Exact } from "@fiscalon/core/money/exact";
import { exchanged } from "@fiscalon/core/money/exchange";
import { roundExact } from "@fiscalon/core/money/roundExact";

const digits = fc.constantFrom(0, 2, 3);
const minor = fc.integer({ min: -9_999_999_999, max: 9_999_999_999 });
const fraction = fc
  .tuple(fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }), fc.bigInt({ min: 1n, max: 10n ** 9n }))
  .map(([n, d]): Exact => ({ n, d }));

/** Two fractions are the same where they are by multiplying crosswise, whatever they were shortened to. */
const same = (a: Exact, b: Exact) => a.n * b.d === b.n * a.d;

const refusal = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    if (error instanceof FiscalError) return error.code;
    throw error;
  }
  return "";
};

describe("amounts as text", () => {
  test("what is written is read again, also as it is shown", () => {
    fc.assert(
      fc.property(minor, digits, (amount, places) => {
        expect(parseAmount(formatAmount(amount, places), places)).toBe(amount === 0 ? 0 : amount);
        const shown = displayAmount(amount, places).replaceAll(",", "").replace("−", "-");
        expect(parseAmount(shown, places)).toBe(amount);
      }),
      { numRuns: 500 },
    );
  });

  test("thousands stand apart in threes, and never behind the point", () => {
    fc.assert(
      fc.property(minor, digits, (amount, places) => {
        expect(displayAmount(amount, places)).toMatch(
          places === 0 ? /^−?\d{1,3}(,\d{3})*$/ : new RegExp(`^−?\\d{1,3}(,\\d{3})*\\.\\d{${places}}$`),
        );
      }),
      { numRuns: 300 },
    );
  });

  test.each([
    ["12.345", 2, "money/too-precise"],
    ["1.5", 0, "money/too-precise"],
    ["twelve", 2, "money/not-a-number"],
    ["", 2, "money/not-a-number"],
    ["1,000.00", 2, "money/not-a-number"],
    ["1e5", 2, "money/not-a-number"],
    ["Infinity", 2, "money/not-a-number"],
    ["0x10", 2, "money/not-a-number"],
    ["99999999999999999999", 2, "money/too-large"],
  ])("%s with %i decimals is refused", (text, places, code) => {
    expect(refusal(() => parseAmount(text, places))).toBe(code);
  });

  test.each([
    ["12.3", 2, 1230],
    ["12.300", 2, 1230],
    ["-0.05", 2, -5],
    ["7", 3, 7000],
    ["0", 2, 0],
  ])("%s with %i decimals is %i", (text, places, amount) => expect(parseAmount(text, places)).toBe(amount));

  test("the decimals of a currency are those of ISO 4217", () => {
    expect(["GBP", "EUR", "INR", "JPY", "BHD", "AED"].map(minorDigits)).toEqual([2, 2, 2, 0, 3, 2]);
    expect(refusal(() => minorDigits("XQQ"))).toBe("money/unknown-currency");
  });
});

describe("exact figures are fractions: no operation loses anything", () => {
  test("the laws of arithmetic", () => {
    fc.assert(
      fc.property(fraction, fraction, fraction, (a, b, c) => {
        expect(same(add(a, b), add(b, a))).toBe(true);
        expect(same(add(add(a, b), c), add(a, add(b, c)))).toBe(true);
        expect(same(multiply(a, add(b, c)), add(multiply(a, b), multiply(a, c)))).toBe(true);
        expect(same(subtract(a, b), negate(subtract(b, a)))).toBe(true);
        expect(subtract(a, a).n).toBe(0n);
        if (b.n !== 0n) expect(same(multiply(divide(a, b), b), a)).toBe(true);
        expect(Math.sign(compare(a, b))).toBe(Math.sign(Number(a.n * b.d - b.n * a.d)));
      }),
      { numRuns: 500 },
    );
    expect(refusal(() => divide(exactFromInteger(1), exactFromInteger(0)))).toBe("money/division-by-zero");
  });

  test("as text they are cut, not rounded up, and say that they go on", () => {
    expect(exactToText({ n: 1n, d: 3n }, 6)).toBe("0.333333…");
    expect(exactToText({ n: -2n, d: 3n }, 2)).toBe("-0.66…");
    expect([exactToText({ n: 1n, d: 8n }, 6), exactToText({ n: 30n, d: 3n }, 6)]).toEqual(["0.125", "10"]);
  });

  test("decimals of any length are taken as they stand", () => {
    fc.assert(
      fc.property(fc.bigInt({ min: 0n, max: 10n ** 18n }), fc.nat(12), (whole, places) => {
        const text = whole.toString().padStart(places + 1, "0");
        const point = text.length - places;
        const written = places === 0 ? text : `${text.slice(0, point)}.${text.slice(point)}`;
        expect(same(exactFromDecimal(written), { n: whole, d: 10n ** BigInt(places) })).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

describe("one rounding", () => {
  /** The nearest multiples of the step below and above, worked out apart. */
  const around = ({ n, d }: Exact, step: bigint) => {
    const floor = n >= 0n || n % (d * step) === 0n ? n / (d * step) : n / (d * step) - 1n;
    return [floor * step, (n % (d * step) === 0n ? floor : floor + 1n) * step] as const;
  };

  test("is one of the two nearest, and the one its mode says", () => {
    const mode = fc.constantFrom("half-up" as const, "half-even" as const, "down" as const, "up" as const);
    fc.assert(
      fc.property(fraction, mode, fc.constantFrom(1, 5, 100), (value, how, step) => {
        const [below, above] = around(value, BigInt(step));
        const rounded = BigInt(roundExact(value, how, step));
        expect([below, above]).toContain(rounded);
        if (below === above) return;
        const [toBelow, toAbove] = [value.n - below * value.d, above * value.d - value.n];
        const [nearZero, farFromZero] = value.n >= 0n ? [below, above] : [above, below];
        if (how === "down") expect(rounded).toBe(nearZero);
        else if (how === "up") expect(rounded).toBe(farFromZero);
        else if (toBelow !== toAbove) expect(rounded).toBe(toBelow < toAbove ? below : above);
        else if (how === "half-up") expect(rounded).toBe(farFromZero);
        else expect((rounded / BigInt(step)) % 2n).toBe(0n);
      }),
      { numRuns: 1500 },
    );
  });

  test("an amount in another currency is multiplied once and rounded once, whatever decimals the two have", () => {
    expect(exchanged(100_00, { rate: "0.8734", fromDigits: 2, toDigits: 2 })).toBe(87_34);
    expect(exchanged(1000, { rate: "0.00523", fromDigits: 0, toDigits: 2 })).toBe(5_23);
    expect(exchanged(1_000, { rate: "2.6", fromDigits: 3, toDigits: 2 })).toBe(2_60);
    expect(exchanged(-100_00, { rate: "0.333", fromDigits: 2, toDigits: 0 })).toBe(-33);
    expect(refusal(() => exchanged(1, { rate: "0", fromDigits: 2, toDigits: 2 }))).toBe("money/bad-rate");
  });
});
