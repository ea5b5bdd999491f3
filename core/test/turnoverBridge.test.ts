import fc from "fast-check";
import { expect, test } from "vitest";
import { turnoverBridge } from "@fiscalon/core/agree/turnoverBridge";
import type { ApartGroup, CodeOnReturn, TurnoverOnReturns } from "@fiscalon/core/agree/turnoverBridge";

const group = (more: Partial<ApartGroup>): ApartGroup => ({
  entry: "document",
  document: "sales-invoice",
  account: "income",
  role: null,
  coded: true,
  fact: "here",
  dated: "in",
  late: false,
  named: null,
  ledger: 0,
  base: 0,
  rows: 1,
  ...more,
});
const code = (more: Partial<CodeOnReturn>): CodeOnReturn => ({
  code: "S",
  direction: "sale",
  treatment: "standard",
  net: 0,
  tax: 0,
  aside: 0,
  boxes: 0,
  rows: 1,
  ...more,
});
const NOTHING: TurnoverOnReturns = {
  codes: [],
  schemes: 0,
  byHand: { amount: 0, rows: 0 },
  rounding: 0,
  sinceSealed: 0,
};

// A year worked out by hand: what each row is, and where it comes from, stands beside it. Common practice, no source.
test("a year of twenty causes, each by itself, to nought", () => {
  const apart = [
    group({ entry: "settlement", document: null, role: "scheme-gain", fact: "none", ledger: 40_00 }), // gain of a scheme
    group({ entry: "payment", document: null, role: "difference", fact: "none", ledger: -2_50 }), // a discount on payment
    group({ entry: "tax-payment", document: null, fact: "none", ledger: 3_00 }), // interest of the authority
    group({ document: "purchase-bill", fact: "none", ledger: -60_00 }), // a bill booked to sales
    group({ ledger: 500_00, base: 250_00 }), // half of an invoice is paid
    group({ account: "expense", base: 90_00, dated: "outside" }), // a refund booked to costs
    group({ account: "asset", base: 400_00, dated: "outside" }), // a machine sold
    group({ base: 70_00, dated: "outside", late: true }), // an invoice of last year, found now
    group({ base: 120_00, dated: "outside" }), // paid now, invoiced last year
    group({ fact: "held", ledger: 300_00 }), // invoiced in December, not paid
    group({ fact: "later", ledger: 80_00 }), // tax point in January
    group({ fact: "earlier", ledger: 55_00 }), // deposit taxed last year
    group({ fact: "elsewhere", ledger: 210_00 }), // sold by the shop abroad
    group({ fact: "none", ledger: 25_00 }), // a dividend, outside the scope
    group({ document: "journal", coded: false, fact: "none", ledger: 30_00, named: "Accrued income" }),
  ];
  const codes = [
    code({ treatment: "exempt", net: 33_00 }), // rent, in none of the boxes
    code({ treatment: "margin", net: 500_00, tax: 20_00, boxes: 120_00 }), // a violin, margin in place of the price
    code({ net: 1000_00, tax: 200_00, boxes: 1200_00 }), // the form asks for values with tax
    code({ net: 100_00, tax: 10_00, boxes: 55_00 }), // half of the value counts
    code({ net: 200_00, tax: 40_00, aside: 200_00 }), // set aside by a flat rate
    code({ direction: "purchase", treatment: "reverse-charge", boxes: 45_00 }), // services from abroad
  ];
  const content = {
    codes,
    schemes: 240_00,
    byHand: { amount: 15_00, rows: 1 },
    rounding: -41,
    sinceSealed: 7_00,
  };
  const steps = [
    -40_00, 2_50, -3_00, 60_00, -250_00, 90_00, 400_00, 70_00, 120_00, -300_00, -80_00, -55_00, -210_00,
    -25_00, -30_00, -33_00, -380_00, 200_00, -45_00, 45_00, 40_00, 15_00, 7_00, -41,
  ];
  const income = 10_000_00;
  const declared = steps.reduce((sum, step) => sum + step, income);
  const { causes, open, rest } = turnoverBridge(income, declared, apart, content);
  expect([rest, open]).toEqual([0, { amount: 0, rows: 0 }]);
  expect(causes.map(({ amount }) => amount).sort((a, b) => a - b)).toEqual([...steps].sort((a, b) => a - b));
  expect(new Set(causes.map(({ name }) => name)).size).toBe(24);
  expect(causes.find(({ found }) => found === "person")?.name).toBe("Accrued income");
});

const amount = fc.integer({ min: -1_000_00, max: 1_000_00 });
const anyGroup = fc.record({
  entry: fc.constantFrom("document", "settlement", "payment", "tax-payment"),
  document: fc.constantFrom("sales-invoice", "sales-credit-note", "purchase-bill", "journal"),
  account: fc.constantFrom("income", "expense", "asset", "liability"),
  role: fc.constant(null),
  coded: fc.boolean(),
  fact: fc.constantFrom("here", "held", "later", "earlier", "elsewhere", "none"),
  dated: fc.constantFrom("in", "outside"),
  late: fc.boolean(),
  named: fc.constantFrom(null, "Accrued income", "Tips"),
  ledger: amount,
  base: amount,
  rows: fc.integer({ min: 1, max: 9 }),
}) as fc.Arbitrary<ApartGroup>;

test("whatever is apart: causes and rest make up the difference, and neither order nor splitting changes a figure", () => {
  fc.assert(
    fc.property(amount, amount, fc.array(anyGroup, { maxLength: 30 }), (left, right, groups) => {
      const { causes, rest, open } = turnoverBridge(left, right, groups, NOTHING);
      expect(causes.reduce((sum, one) => sum + one.amount, left) + rest).toBe(right);
      const turned = turnoverBridge(left, right, [...groups].reverse(), NOTHING);
      const byName = (list: typeof causes) => [...list].sort((a, b) => a.name.localeCompare(b.name));
      expect(byName(turned.causes)).toEqual(byName(causes));
      expect([turned.rest, turned.open]).toEqual([rest, open]);
      const halves = groups.flatMap((one) => [
        { ...one, ledger: one.ledger - 1, rows: one.rows - 1 },
        { ...one, ledger: 1, base: 0, rows: 1 },
      ]);
      const split = turnoverBridge(left, right, halves, NOTHING);
      expect([split.rest, split.open]).toEqual([rest, open]);
    }),
  );
});
