import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { setupOf } from "./support/books.ts";
import { PACKS } from "./support/packs.ts";

/** Works out a line of written arithmetic as a reader with a pocket calculator would: apart from the engine. */
function workedOut(expression: string): number {
  const plain = expression
    .replace(/ incl\.| a unit| a document|…/g, "")
    .replace(/ \((?=[^()]*(?:price|unit))[^()]*\)/g, "")
    .replace(/(\d),(?=\d{3})/g, "$1")
    .replaceAll("×", "*")
    .replaceAll("÷", "/")
    .replaceAll("−", "-")
    .replace(/([\d.]+) %/g, "($1/100)");
  const parts = plain.split(/(\bmax\(|\bmin\(|[-+*/(),\s]|[\d.]+)/).filter((part) => part.trim() !== "");
  let next = 0;
  const take = () => parts[next++] ?? "";
  const peek = () => parts[next] ?? "";
  const sum = (): number => {
    let value = product();
    while (peek() === "+" || peek() === "-") value = take() === "+" ? value + product() : value - product();
    return value;
  };
  const product = (): number => {
    let value = factor();
    while (peek() === "*" || peek() === "/") value = take() === "*" ? value * factor() : value / factor();
    return value;
  };
  const list = (): number[] => {
    const values = [sum()];
    while (peek() === ",") {
      take();
      values.push(sum());
    }
    take();
    return values;
  };
  const factor = (): number => {
    const token = take();
    if (token === "-") return -factor();
    if (token === "(") return at(list(), 0);
    if (token === "max(") return Math.max(...list());
    if (token === "min(") return Math.min(...list());
    if (!/^[\d.]+$/.test(token)) throw new Error(`"${expression}" is no arithmetic at "${token}"`);
    return Number(token);
  };
  const value = sum();
  if (next < parts.length) throw new Error(`"${expression}" goes on after ${next} parts: ${parts.join(" ")}`);
  return value;
}

const figure = (text: string) => Number(text.replaceAll(",", "").replace("−", "-"));

test("the reader's calculator", () => {
  expect(workedOut("1,234.50 × 20 %")).toBeCloseTo(246.9, 9);
  expect(workedOut("max(0, 646 − 400) × 20 ÷ (100 + 20)")).toBeCloseTo(41, 9);
  expect(workedOut("576.75 incl. ÷ 1.2")).toBeCloseTo(480.625, 9);
  expect(workedOut("3 × 0.25 a unit")).toBeCloseTo(0.75, 9);
  expect(() => workedOut("net × 20 %")).toThrow(/is no arithmetic/);
});

describe.each(PACKS.all.map((pack) => [pack.id, pack] as const))(
  "what is written beside a tax of %s",
  (_id, pack) => {
    const setup = setupOf(pack.id, { levies: pack.levies.map(({ levy }) => levy) });
    const codes = pack.codes.flatMap(expandCode);
    const regions = [...(pack.regions ?? []).map(({ code }) => code), null];
    const cases = fc.record({
      code: fc.constantFrom(...codes),
      region: fc.constantFrom(...regions),
      amount: fc.integer({ min: 100, max: 2_000_000 }),
      purchase: fc.boolean(),
      prices: fc.constantFrom("exclusive" as const, "inclusive" as const),
    });

    const effectOf = ({
      code,
      region,
      amount,
      purchase,
      prices,
    }: typeof cases extends fc.Arbitrary<infer C> ? C : never) => {
      const side = code.direction === "both" ? (purchase ? "purchase" : "sale") : code.direction;
      const place = { country: pack.country, region };
      try {
        return documentEffect(
          {
            kind: usualKind(side, false),
            date: code.to !== null && code.to < "2026-05-11" ? code.to : "2026-05-11",
            prices,
            site: place,
            party: { ...place, registered: true, taxNumber: null, standing: {} },
            lines: [
              {
                amount: formatAmount(amount, setup.digits),
                quantity: "3",
                code: code.code,
                attributes: Object.fromEntries((code.inputs ?? []).map((name) => [name, "7.50"])),
              },
            ],
          },
          setup,
        );
      } catch (error) {
        if (error instanceof FiscalError) return undefined;
        throw error;
      }
    };

    const explained = (effect: DocumentEffect) =>
      effect.printed.lines.flatMap((line) =>
        line.taxes.map((tax, index) => ({
          tax,
          words: explainTax(line, index, setup.digits),
        })),
      );

    test("is arithmetic that holds when it is worked out again, and ends in the figure that counts", () => {
      const unit = 10 ** -setup.digits;
      let checked = 0;
      fc.assert(
        fc.property(cases, (drawn) => {
          const effect = effectOf(drawn);
          if (!effect) return;
          for (const { tax, words } of explained(effect)) {
            expect(words.length, drawn.code.code).toBeGreaterThan(0);
            for (const line of words) {
              expect(line).not.toMatch(/undefined|NaN|\[object|\{/);
              const [, expression, result, rounded] =
                /^(.*) = (−?[\d,.]+)…?(?: → (−?[\d,.]+))?$/.exec(line) ?? [];
              if (expression === undefined || result === undefined || / a document$/.test(expression))
                continue;
              checked += 1;
              const value = workedOut(expression);
              expect(Math.abs(value - figure(result)), `${drawn.code.code}: ${line}`).toBeLessThan(
                unit / 100 + Math.abs(value) * 1e-5,
              );
              if (rounded !== undefined)
                expect(Math.abs(figure(result) - figure(rounded)), line).toBeLessThanOrEqual(unit / 2 + 1e-9);
            }
            const last = words.findLast((line) => line.includes(" = ")) ?? "";
            const told = last.split(/ = | → /).at(-1) ?? "";
            if (told !== "" && !tax.typed)
              expect(figure(told)).toBe(figure(displayAmount(tax.calculated, setup.digits)));
          }
        }),
        { numRuns: 250 },
      );
      expect(checked).toBeGreaterThan(5);
    });
  },
);
