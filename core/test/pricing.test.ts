import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { exactFromDecimal } from "@fiscalon/core/money/exact";
import { allocate } from "@fiscalon/core/money/allocate";
import { roundExact } from "@fiscalon/core/money/roundExact";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { netAndGross, priceLine } from "@fiscalon/core/tax/priceLine";
import type { RatedComponent } from "@fiscalon/core/tax/levyStack";
import { ROUND_EACH_LINE } from "@fiscalon/core/model/rounding";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import { positionWith } from "@fiscalon/core/returns/positionWith";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import { figuresOfReturn } from "@fiscalon/core/returns/returnFigures";
import { formOn } from "@fiscalon/core/returns/formOn";
import { gb } from "@fiscalon/core/packs/gb/pack";
import { FiscalError } from "@fiscalon/core/errors";
import type { LineInput } from "@fiscalon/core/model/document";
import { gbDocument, gbEffect, gbSetup, groupsOf } from "./support/gbBooks.ts";

function levy(name: string, rate: string, partOfLaterBases = false): RatedComponent {
  return {
    rate,
    component: {
      levy: name,
      rate: { kind: "percent", schedule: name },
      partOfLaterBases,
      charged: "charged",
      recoverable: "100",
      boxes: {},
    },
  };
}

describe("one receipt in both modes", () => {
  const price = (amount: number, mode: "exclusive" | "inclusive", levies: RatedComponent[]) => {
    const taxes = priceLine(amount, mode, levies, ROUND_EACH_LINE);
    return { ...netAndGross(amount, mode, taxes), taxes: taxes.map((t) => t.tax) };
  };

  test("one levy: subtotal 45.00 or total 54.00 give the same (arithmetic of 20 %)", () => {
    const levies = [levy("VAT", "20")];
    expect(price(4500, "exclusive", levies)).toEqual({ net: 4500, gross: 5400, taxes: [900] });
    expect(price(5400, "inclusive", levies)).toEqual({ net: 4500, gross: 5400, taxes: [900] });
  });

  test("two levies side by side, 5 % and 7 % (arithmetic)", () => {
    const levies = [levy("GST", "5"), levy("PST", "7")];
    expect(price(10310, "exclusive", levies)).toEqual({ net: 10310, gross: 11548, taxes: [516, 722] });
    expect(price(11548, "inclusive", levies)).toEqual({ net: 10310, gross: 11548, taxes: [516, 722] });
  });

  test("two levies stacked, 29 % with 10 % on top: 29.00 and 12.90 on 100.00 (arithmetic)", () => {
    const levies = [levy("WET", "29", true), levy("GST", "10")];
    expect(price(10000, "exclusive", levies)).toEqual({ net: 10000, gross: 14190, taxes: [2900, 1290] });
    expect(price(14190, "inclusive", levies)).toEqual({ net: 10000, gross: 14190, taxes: [2900, 1290] });
  });

  test("a price agreed including tax leaves less revenue than the same price plus tax", () => {
    const levies = [levy("VAT", "20")];
    expect(price(12000, "exclusive", levies).net).toBe(12000);
    expect(price(12000, "inclusive", levies).net).toBe(10000);
  });

  test("the arithmetic is written out", () => {
    const taxes = priceLine(57675, "inclusive", [levy("VAT", "20")], ROUND_EACH_LINE, {
      typed: { VAT: 9615 },
    });
    expect(explainTax({ amount: 57675, mode: "inclusive", taxes, rounding: ROUND_EACH_LINE }, 0, 2)).toEqual([
      "576.75 incl. ÷ 1.2 = 480.625",
      "480.625 × 20 % = 96.125 → 96.13",
      "half up, by line",
      "typed from the paper: 96.15",
      "kept, 0.02 over",
    ]);
  });
});

describe("figures typed from the paper", () => {
  test("a bill that is nothing but tax", () => {
    const effect = gbEffect(
      gbDocument("purchase-bill", [{ amount: "0.00", code: "S20", typedTax: { VAT: "318.40" } }]),
    );
    expect(effect.priced).toMatchObject({ net: 0, tax: 31840, gross: 31840 });
    expect(effect.postings.map((p) => [p.account, p.amount])).toEqual([
      ["1200", 31840],
      ["2100", -31840],
    ]);
    expect(effect.warnings.map((w) => w.code)).toEqual(["document/tax-only"]);
  });

  test("a typed figure stays when the amount changes, and says so", () => {
    const line = (amount: string) =>
      gbDocument("purchase-bill", [{ amount, code: "S20", typedTax: { VAT: "96.15" } }]);
    expect(gbEffect(line("480.63")).warnings.map((w) => w.code)).toEqual(["document/typed-tax"]);
    const changed = gbEffect(line("500.00"));
    expect(changed.priced.tax).toBe(9615);
    expect(changed.warnings[0]?.text).toContain("calculated now 100.00, typed 96.15");
  });

  test("the tax of a whole document is spread over its lines", () => {
    const bill = gbDocument(
      "purchase-bill",
      [
        { amount: "10.02", code: "S20" },
        { amount: "20.03", code: "S20" },
        { amount: "5.00", code: "Z" },
      ],
      { typedTax: { VAT: "6.00" } },
    );
    expect(gbEffect(bill).priced.lines.map((l) => l.gross - l.net)).toEqual([200, 400, 0]);
  });
});

describe("refusals name the field", () => {
  const refusal = (lines: LineInput[], more = {}) => {
    try {
      gbEffect(gbDocument("sales-invoice", lines, more));
    } catch (error) {
      if (error instanceof FiscalError) return [error.code, error.field];
    }
    return [];
  };
  test.each([
    [[{ amount: "1.005", code: "S20" }], ["money/too-precise", "lines[0].amount"]],
    [[{ amount: "ten", code: "S20" }], ["money/not-a-number", "lines[0].amount"]],
    [
      [
        { amount: "1.00", code: "S20" },
        { amount: "1.00", code: "S21" },
      ],
      ["tax/unknown-code", "lines[1].code"],
    ],
    [[{ amount: "1.00", code: "RCS" }], ["tax/code-wrong-side", "lines[0].code"]],
    [
      [{ quantity: "3", unitPrice: "1.00", amount: "4.00", code: "Z" }],
      ["tax/amount-mismatch", "lines[0].amount"],
    ],
    [[{ amount: "1.00", code: "EX", account: "9999" }], ["ledger/unknown-account", "lines[0].account"]],
    [
      [{ amount: "1.00", typedTax: { VAT: "1.00" } }],
      ["tax/typed-tax-without-levy", "lines[0].typedTax.VAT"],
    ],
    [[{ code: "S20" }], ["tax/no-amount", "lines[0].amount"]],
    [
      [{ amount: "99999999999999.99", quantity: "99999999999", unitPrice: "99999999", code: "Z" }],
      ["money/too-large", "lines[0]"],
    ],
  ] as [LineInput[], string[]][])("%j", (lines, expected) => {
    expect(refusal(lines)).toEqual(expected);
  });
  test("no rate in force is an error, never 0", () => {
    expect(refusal([{ amount: "1.00", code: "H" }], { date: "2009-05-01" })).toEqual([
      "tax/no-rate",
      "lines[0].taxPoint",
    ]);
  });
});

const money = fc.integer({ min: -5_000_000, max: 50_000_000 });
const percent = fc.integer({ min: 0, max: 60_000 }).map((n) => String(n / 1000));

describe("properties", () => {
  test("net, taxes and gross add up in both modes, stacked or not", () => {
    fc.assert(
      fc.property(
        money,
        percent,
        percent,
        fc.boolean(),
        fc.constantFrom("exclusive", "inclusive"),
        (amount, a, b, stacked, mode) => {
          const taxes = priceLine(amount, mode, [levy("A", a, stacked), levy("B", b)], ROUND_EACH_LINE);
          const { net, gross } = netAndGross(amount, mode, taxes);
          return (
            net + taxes.reduce((sum, t) => sum + t.tax, 0) === gross &&
            (mode === "inclusive" ? gross : net) === amount
          );
        },
      ),
    );
  });

  test("a gross worked out from a net gives the net back, to a minor unit a component", () => {
    fc.assert(
      fc.property(money, percent, percent, fc.boolean(), (amount, a, b, stacked) => {
        const levies = [levy("A", a, stacked), levy("B", b)];
        const forth = priceLine(amount, "exclusive", levies, ROUND_EACH_LINE);
        const { gross } = netAndGross(amount, "exclusive", forth);
        const back = priceLine(gross, "inclusive", levies, ROUND_EACH_LINE);
        const { net } = netAndGross(gross, "inclusive", back);
        return (
          Math.abs(net - amount) <= 2 && back.every((t, i) => Math.abs(t.tax - (forth[i]?.tax ?? 0)) <= 1)
        );
      }),
    );
  });

  test("one rounding is the nearest whole, checked against integer arithmetic", () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }),
        fc.bigInt({ min: 1n, max: 10n ** 6n }),
        (n, d) => {
          const rounded = BigInt(roundExact({ n, d }));
          const twice = 2n * (n - rounded * d);
          const distance = twice < 0n ? -twice : twice;
          return distance < d || (distance === d && (n < 0n ? twice > 0n : twice < 0n));
        },
      ),
    );
  });

  test("allocation sums to the whole and stays within a unit of each exact share", () => {
    fc.assert(
      fc.property(
        money,
        fc.array(fc.integer({ min: 0, max: 100_000 }), { minLength: 1, maxLength: 12 }),
        (total, weights) => {
          const parts = allocate(total, weights);
          const sum = weights.reduce((a, b) => a + b, 0);
          const near = parts.every(
            (p, i) => sum === 0 || Math.abs(p - (total * (weights[i] ?? 0)) / sum) <= 1,
          );
          return parts.reduce((a, b) => a + b, 0) === total && near;
        },
      ),
    );
  });

  const line = fc.record({
    amount: fc.integer({ min: 0, max: 900_000 }).map((n) => (n / 100).toFixed(2)),
    code: fc.constantFrom("S20", "R5", "Z", "EX"),
  });
  const MODES = ["exclusive", "inclusive"] as const;
  const lines = fc.array(line, { minLength: 1, maxLength: 6 });
  const boxes = (documents: ReturnType<typeof gbDocument>[]) =>
    evaluateReturn(
      formOn(gb, "2026-06-30"),
      documents.flatMap((d) => groupsOf(gbEffect(d))),
    ).map((b) => b.amount);

  test("every entry balances, and a document with its mirror leaves every box at zero", () => {
    fc.assert(
      fc.property(
        lines,
        fc.constantFrom("exclusive", "inclusive"),
        fc.constantFrom("sales", "purchase"),
        (ls, prices, side) => {
          const [kind, mirror] =
            side === "sales"
              ? (["sales-invoice", "sales-credit-note"] as const)
              : (["purchase-bill", "purchase-credit-note"] as const);
          const [one, other] = [gbDocument(kind, ls, { prices }), gbDocument(mirror, ls, { prices })];
          const balance = gbEffect(one).postings.reduce((sum, p) => sum + p.amount, 0);
          return balance === 0 && boxes([one, other]).every((amount) => amount === 0);
        },
      ),
    );
  });

  test("the position with a document being typed is that of the return once it is posted", () => {
    const form = formOn(gb, "2026-06-30");
    const QUARTER = { from: "2026-04-01", to: "2026-06-30" };
    fc.assert(
      fc.property(
        lines,
        lines,
        fc.constantFrom("sales-invoice", "purchase-bill", "sales-credit-note"),
        (ls, typed, kind) => {
          const standing = groupsOf(gbEffect(gbDocument("sales-invoice", ls)));
          const draft = gbEffect(gbDocument(kind, typed));
          const after = evaluateReturn(form, [...standing, ...groupsOf(draft)]);
          const now = evaluateReturn(form, standing);
          const movements = boxMovements(
            draft.facts.map((fact) => ({
              ...fact,
              registration: 1,
              period: { own: QUARTER, reported: QUARTER, late: false },
            })),
          );
          expect(positionWith(form, now, movements, { digits: 2 })).toEqual(figuresOfReturn(form, after));
        },
      ),
    );
  });

  test("a line in the other mode is priced as on a document in that mode", () => {
    const ownMode = fc.tuple(line, fc.constantFrom(...MODES)).map(([one, prices]) => ({ ...one, prices }));
    fc.assert(
      fc.property(
        fc.array(ownMode, { minLength: 1, maxLength: 6 }),
        fc.constantFrom(...MODES),
        (ls, prices) => {
          const mixed = gbEffect(gbDocument("sales-invoice", ls, { prices }));
          const alone = ls.map(({ prices: own, ...rest }) =>
            gbEffect(gbDocument("sales-invoice", [rest], { prices: own })),
          );
          const figures = ({ net, tax, gross }: (typeof alone)[number]["priced"]) => [net, tax, gross];
          const sum = alone
            .map(({ priced }) => figures(priced))
            .reduce((a, b) => a.map((x, i) => x + (b[i] ?? 0)));
          expect(figures(mixed.priced)).toEqual(sum);
          expect(mixed.postings.reduce((total, { amount }) => total + amount, 0)).toBe(0);
        },
      ),
    );
  });

  test("neither the order of documents nor splitting one in two changes a box", () => {
    fc.assert(
      fc.property(lines, lines, (a, b) => {
        const [first, second] = [gbDocument("sales-invoice", a), gbDocument("purchase-bill", b)];
        const split = a.map((l) => gbDocument("sales-invoice", [l]));
        expect(boxes([second, first])).toEqual(boxes([first, second]));
        expect(boxes([...split, second])).toEqual(boxes([first, second]));
      }),
      { numRuns: 50 },
    );
  });

  test("rounding by document is the exact sum rounded once", () => {
    fc.assert(
      fc.property(lines, (ls) => {
        const setup = gbSetup({ level: "document", mode: "half-up" });
        const rateOf: Record<string, string> = { S20: "20", R5: "5", Z: "0", EX: "0" };
        const expected = ["S20", "R5"].reduce((sum, code) => {
          const pence = ls
            .filter((l) => l.code === code)
            .reduce((s, l) => s + exactFromDecimal(l.amount).n, 0n);
          return sum + roundExact({ n: pence * BigInt(rateOf[code] ?? 0), d: 100n });
        }, 0);
        return gbEffect(gbDocument("sales-invoice", ls), setup).priced.tax === expected;
      }),
    );
  });
});
