import fc from "fast-check";
import { expect, test } from "vitest";
import { registerAmount } from "@fiscalon/core/formats/registers/registerAmount";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";

/** The same text read once more, digit by digit, with nothing of core. */
function byHand(text: string, digits: number): number | "refused" {
  const [whole = "", fraction = ""] = text.replace(/^[+-]/, "").split(".");
  const kept = fraction.replace(/0+$/, "");
  if (kept.length > digits) return "refused";
  const minor = Number(BigInt((whole || "0") + kept.padEnd(digits, "0")));
  return text.startsWith("-") ? -minor || 0 : minor;
}

const written = fc
  .tuple(
    fc.constantFrom("", "-", "+"),
    fc.stringMatching(/^\d{1,13}$/),
    fc.option(fc.stringMatching(/^\d{1,6}$/)),
    fc.constantFrom(0, 2, 3),
  )
  .map(([sign, whole, fraction, digits]) => ({
    text: `${sign}${whole}${fraction === null ? "" : `.${fraction}`}`,
    digits,
  }));

test("an amount is read as its digits say, whatever its length and zeros, and never rounded", () => {
  fc.assert(
    fc.property(written, ({ text, digits }) => {
      const expected = byHand(text, digits);
      if (expected === "refused") expect(() => parseAmount(text, digits)).toThrow(/more decimals/);
      else expect(parseAmount(text, digits)).toBe(expected);
    }),
    { numRuns: 3000 },
  );
});

test("what is written is read again: plainly, for reading, and as registers of either custom print it", () => {
  fc.assert(
    fc.property(fc.integer({ min: -1e12, max: 1e12 }), fc.constantFrom(0, 2, 3), (minor, digits) => {
      expect(parseAmount(formatAmount(minor, digits), digits)).toBe(minor);
      const shown = displayAmount(minor, digits);
      expect(registerAmount(shown, ".", digits)).toBe(minor);
      const turned = shown.replaceAll(",", "_").replace(".", ",").replaceAll("_", ".");
      expect(registerAmount(turned, ",", digits)).toBe(minor);
    }),
    { numRuns: 3000 },
  );
});
