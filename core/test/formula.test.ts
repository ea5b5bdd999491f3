import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { evaluateFormula } from "@fiscalon/core/formula/evaluateFormula";
import type { FormulaScope } from "@fiscalon/core/formula/evaluateFormula";
import { formulaInWords } from "@fiscalon/core/formula/formulaInWords";
import { parseFormula } from "@fiscalon/core/formula/parseFormula";
import { exactFromDecimal, exactToText } from "@fiscalon/core/money/exact";

const BOXES: Record<string, string> = { "1": "100.50", "2": "0", "G5.IL": "-3", T1: "7" };
const SCOPE: FormulaScope = {
  box: (id) => (BOXES[id] === undefined ? undefined : exactFromDecimal(BOXES[id])),
  rate: (id) => (id === "us.IL-ROT" ? exactFromDecimal("6.25") : undefined),
  name: (name) => (name === "net" ? exactFromDecimal("80") : undefined),
};
const value = (text: string) => exactToText(evaluateFormula(parseFormula(text), SCOPE), 10);

describe("a formula is arithmetic as at school", () => {
  test.each([
    ["[1] + [2] * 3", "100.5"],
    ["([1] + [2]) * 3", "301.5"],
    ["-[1] - -[T1]", "-93.5"],
    ["[1] / 4 / 2", "12.5625"],
    ["1 / 3 * 3", "1"],
    ["[G5.IL] * {us.IL-ROT} / 100", "-0.1875"],
    ["max([1] - [T1], 0)", "93.5"],
    ["min([1], [T1], [G5.IL])", "-3"],
    ["abs([G5.IL])", "3"],
    ["[2] == 0 ? net : [1]", "80"],
    ["[1] > 100 && [T1] <= 7", "1"],
    ["[1] < 100 || [T1] != 7", "0"],
    ["[2] != 0 && 1 / [2] > 1", "0"],
    ["1 > 2 == 0", "1"],
  ])("%s is %s", (text, expected) => expect(value(text)).toBe(expected));

  test("what it reads is told apart: boxes, rates, names", () => {
    const { boxes, rates, names } = parseFormula("[1] + [G5.IL] * {us.IL-ROT} + net + [1]");
    expect([boxes, rates, names]).toEqual([["1", "G5.IL"], ["us.IL-ROT"], ["net"]]);
  });
});

describe("what is no formula is refused with a reason, what is missing is named", () => {
  test.each([
    ["[1] +", "formula/not-understood"],
    ["[1] [2]", "formula/not-allowed"],
    ["net.constructor", "formula/not-allowed"],
    ["net = 5", "formula/not-understood"],
    ["'a' + 1", "formula/not-allowed"],
    ["sum([1])", "formula/not-allowed"],
    ["max()", "formula/not-allowed"],
    ["this", "formula/not-allowed"],
    ["!net", "formula/not-allowed"],
  ])("%s", (text, code) => expect(() => value(text)).toThrow(expect.objectContaining({ code })));

  test("more steps or letters than any form needs", () => {
    expect(() => value(`${"1+".repeat(200)}1`)).toThrow(
      expect.objectContaining({ code: "formula/too-long" }),
    );
    expect(() => value("1+".repeat(400))).toThrow(expect.objectContaining({ code: "formula/too-long" }));
  });

  test.each([
    ["[9] + 1", "formula/unknown-name", "box 9"],
    ["{gb.STD}", "formula/unknown-name", "the rate gb.STD"],
    ["gross", "formula/unknown-name", "gross"],
    ["1 / [2]", "money/division-by-zero", ""],
  ])("%s", (text, code, named) =>
    expect(() => value(text)).toThrow(
      expect.objectContaining({ code, message: expect.stringContaining(named) as string }),
    ),
  );
});

/** An expression, its text, and its value as numerator and denominator, worked out without the engine. */
interface Sum {
  text: string;
  n: bigint;
  d: bigint;
}
const number = fc.integer({ min: -9999, max: 9999 }).map((cents): Sum => ({
  text: cents < 0 ? `(0 - ${Math.abs(cents) / 100})` : String(cents / 100),
  n: BigInt(cents),
  d: 100n,
}));
const { sum } = fc.letrec<{ sum: Sum }>((tie) => ({
  sum: fc.oneof(
    { depthSize: "small", withCrossShrink: true },
    number,
    fc.tuple(fc.constantFrom("+", "-", "*"), tie("sum"), tie("sum")).map(([sign, a, b]): Sum => {
      const text = `(${a.text} ${sign} ${b.text})`;
      if (sign === "*") return { text, n: a.n * b.n, d: a.d * b.d };
      const right = sign === "+" ? b.n : -b.n;
      return { text, n: a.n * b.d + right * a.d, d: a.d * b.d };
    }),
    fc.tuple(tie("sum"), tie("sum")).map(([a, b]): Sum => {
      const larger = a.n * b.d >= b.n * a.d ? a : b;
      return { text: `max(${a.text}, ${b.text})`, n: larger.n, d: larger.d };
    }),
  ),
}));

test("any sum of decimals is exact, to the last digit", () => {
  fc.assert(
    fc.property(sum, ({ text, n, d }) => {
      fc.pre(text.length <= 600);
      const found = evaluateFormula(parseFormula(text), {});
      expect(found.n * d).toBe(n * found.d);
    }),
    { numRuns: 500 },
  );
});

describe("a formula in words", () => {
  const words = (text: string) =>
    formulaInWords(text, { box: (id) => `box ${id}`, rate: () => "Illinois", name: (name) => name });
  test.each([
    ["[1] + [2]", "box 1 + box 2"],
    ["[1] - ([2] - [T1])", "box 1 − (box 2 − box T1)"],
    ["([1] + [2]) * 3", "(box 1 + box 2) × 3"],
    ["[1] / [2] / 2", "box 1 ÷ box 2 ÷ 2"],
    ["abs([3] - [4])", "box 3 − box 4, without its sign"],
    ["max([1] - [2], 0)", "box 1 − box 2, at least 0"],
    ["min([1], [2])", "the smallest of box 1, box 2"],
    ["[1] + max([2], 0)", "box 1 + (box 2, at least 0)"],
    ["[1] * {us.IL} / 100", "box 1 × Illinois %"],
    ["{us.IL} / 100", "Illinois %"],
    ["[1] > 5 ? [2] : -[2]", "box 2 where box 1 > 5, otherwise −box 2"],
  ])("%s", (text, expected) => expect(words(text)).toBe(expected));
});
