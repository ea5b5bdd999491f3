import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import {
  allocationSign,
  baseOfAllocation,
  onAccount,
  paymentPostings,
} from "@fiscalon/core/ledger/paymentPostings";
import type { PayableDocument, PaymentInput } from "@fiscalon/core/ledger/paymentPostings";
import { accountInRole } from "@fiscalon/core/model/account";
import { bringsMoney, kindOf, kindsWhere } from "@fiscalon/core/model/documentKinds";
import { parseAmount } from "@fiscalon/core/money/amount";
import { doc, setupOf } from "./support/books.ts";

const GB = setupOf("gb");
const role = (name: Parameters<typeof accountInRole>[1]) => accountInRole(GB.accounts, name);

/** What each account moved by, debit positive. */
function moved(
  kind: Parameters<typeof doc>[0],
  lines: Parameters<typeof doc>[1],
  more = {},
): Record<string, number> {
  const sums: Record<string, number> = {};
  for (const { account, amount } of documentEffect(doc(kind, lines, more), GB).postings)
    sums[account] = (sums[account] ?? 0) + amount;
  return Object.fromEntries(Object.entries(sums).filter(([, sum]) => sum !== 0));
}

/** Double entry: debit the counter account of a sale, credit the revenue and the tax owed; mirrored on the other side and by credit notes. */
describe("what a document does to the ledger", () => {
  const kinds = kindsWhere(({ direction, entry }) => direction !== null && entry === "typed");
  test.each(kinds)("%s: counter account, net and tax, on their sides", (kind) => {
    const { direction, counter, sign } = kindOf(kind);
    const way = (direction === "sale" ? 1 : -1) * sign;
    const sides = moved(kind, ["S20", "100.00"]);
    expect(sides[role(counter ?? "bank")]).toBe(way * 120_00);
    expect(sides[role(direction === "sale" ? "sales" : "purchases")]).toBe(way * -100_00);
    expect(sides[role(direction === "sale" ? "output-tax" : "input-tax")]).toBe(way * -20_00);
    expect(Object.keys(sides)).toHaveLength(3);
  });

  test("tax that is not deducted is cost; self-assessed tax is owed and deducted", () => {
    expect(moved("purchase-bill", ["BL20", "100.00"])[role("purchases")]).toBe(120_00);
    const reverse = moved("purchase-bill", ["RCS", "100.00"]);
    expect([reverse[role("payable")], reverse[role("output-tax")], reverse[role("input-tax")]]).toEqual([
      -100_00, -20_00, 20_00,
    ]);
  });

  test("what is paid at once goes through the account that is named", () => {
    const other = GB.accounts.find(({ type, role: own }) => type === "asset" && own === null)?.code ?? "";
    expect(moved("expense", ["S20", "10.00"], { paidThrough: other })[other]).toBe(-12_00);
    expect(() => moved("expense", ["S20", "10.00"], { paidThrough: "nowhere" })).toThrow(
      expect.objectContaining({ code: "ledger/unknown-account" }),
    );
  });

  test("open from before the books: against opening balances, without tax; nothing that was paid at once", () => {
    expect(moved("sales-invoice", ["S20", "100.00"], { opening: true })).toEqual({
      [role("receivable")]: 120_00,
      [role("opening")]: -120_00,
    });
    expect(() => moved("cash-sale", ["S20", "1.00"], { opening: true })).toThrow(
      expect.objectContaining({ code: "document/opening" }),
    );
  });
});

const payable = (part: Partial<PayableDocument>): PayableDocument => ({
  kind: "sales-invoice",
  number: "S-1",
  currency: "GBP",
  toPay: 120_00,
  open: 120_00,
  baseGross: 120_00,
  baseSettled: 0,
  ...part,
});
const payment = (part: Partial<PaymentInput>): PaymentInput => ({
  kind: "receipt",
  currency: "GBP",
  amount: 120_00,
  base: 120_00,
  account: null,
  allocations: [],
  ...part,
});
const posted = (input: PaymentInput) =>
  Object.fromEntries(paymentPostings(input, GB.accounts, 2).map(({ account, amount }) => [account, amount]));

describe("what a payment does to the ledger", () => {
  test("a receipt in full, in part, with a rest on account, and written off", () => {
    const to = (amount: number, difference = 0, open = 120_00) => [
      { document: payable({ open }), amount, difference, differenceAccount: null },
    ];
    expect(posted(payment({ allocations: to(120_00) }))).toEqual({
      [role("bank")]: 120_00,
      [role("receivable")]: -120_00,
    });
    expect(posted(payment({ amount: 108_00, base: 108_00, allocations: to(108_00, 12_00) }))).toEqual({
      [role("bank")]: 108_00,
      [role("difference")]: 12_00,
      [role("receivable")]: -120_00,
    });
    const over = payment({ amount: 150_00, base: 150_00, allocations: to(120_00) });
    expect(onAccount(over)).toBe(30_00);
    expect(
      paymentPostings(over, GB.accounts, 2).filter(({ account }) => account === role("receivable")),
    ).toMatchObject([{ amount: -120_00 }, { amount: -30_00, text: "On account" }]);
  });

  test("an invoice in another currency: what the rate changed is an exchange difference, without tax", () => {
    const euros = payable({ currency: "EUR", baseGross: 100_00 });
    const input = payment({
      currency: "EUR",
      base: 104_00,
      allocations: [{ document: euros, amount: 120_00, difference: 0, differenceAccount: null }],
    });
    expect(posted(input)).toEqual({
      [role("bank")]: 104_00,
      [role("receivable")]: -100_00,
      [role("exchange")]: -4_00,
    });
  });

  test.each([
    ["payment/amount", payment({ amount: -1 })],
    ["payment/nothing", payment({ amount: 0, base: 0 })],
    [
      "payment/over-allocated",
      payment({
        amount: 1,
        base: 1,
        allocations: [{ document: payable({}), amount: 2, difference: 0, differenceAccount: null }],
      }),
    ],
    [
      "payment/not-open",
      payment({
        allocations: [{ document: payable({ open: 1 }), amount: 2, difference: 0, differenceAccount: null }],
      }),
    ],
    [
      "payment/not-open",
      payment({
        allocations: [
          { document: payable({ kind: "cash-sale" }), amount: 2, difference: 0, differenceAccount: null },
        ],
      }),
    ],
    [
      "payment/other-currency",
      payment({
        allocations: [
          { document: payable({ currency: "USD" }), amount: 2, difference: 0, differenceAccount: null },
        ],
      }),
    ],
    ["ledger/unknown-account", payment({ account: "nowhere" })],
  ])("refused: %s", (code, input) =>
    expect(() => paymentPostings(input, GB.accounts, 2)).toThrow(expect.objectContaining({ code })),
  );
});

test("any payments over the life of a document: entries balance, and in the end all of it is taken off, at any rate of exchange", () => {
  const kinds = kindsWhere(({ counter }) => counter === "receivable" || counter === "payable");
  fc.assert(
    fc.property(
      fc.constantFrom(...kinds),
      fc.integer({ min: 1, max: 1_000_000 }),
      fc.integer({ min: 1, max: 1_000_000 }),
      fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 1, maxLength: 6 }),
      fc.double({ min: 0.5, max: 2, noNaN: true }),
      (kind, toPay, baseGross, shares, rate) => {
        const way = bringsMoney(kind) ? "receipt" : "payment";
        expect(allocationSign(way, kind)).toBe(1);
        const all = shares.reduce((sum, share) => sum + share, 0);
        let open = toPay;
        let baseSettled = 0;
        shares.forEach((share, index) => {
          const amount =
            index === shares.length - 1 ? open : Math.min(open, Math.floor((toPay * share) / all));
          if (amount === 0) return;
          const document = payable({ kind, toPay, open, baseGross, baseSettled });
          const allocation = { document, amount, difference: 0, differenceAccount: null };
          const input = payment({
            kind: way,
            amount,
            base: Math.round(amount * rate),
            allocations: [allocation],
          });
          const sum = paymentPostings(input, GB.accounts, 2).reduce((total, one) => total + one.amount, 0);
          expect(sum).toBe(0);
          baseSettled += baseOfAllocation(allocation);
          open -= amount;
        });
        if (open === 0) expect(baseSettled).toBe(baseGross);
      },
    ),
    { numRuns: 400 },
  );
});

test("amounts as typed are whole minor units or refused", () => {
  expect([parseAmount("1234.50", 2), parseAmount("-0.01", 2), parseAmount("7", 0)]).toEqual([123450, -1, 7]);
  expect(() => parseAmount("1.005", 2)).toThrow();
});
