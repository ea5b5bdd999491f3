import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { cashReleases, NOTHING_RELEASED } from "@fiscalon/core/facts/cashBasis";
import type { Release, RELEASED_FIGURES } from "@fiscalon/core/facts/cashBasis";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { paymentPostings } from "@fiscalon/core/ledger/paymentPostings";
import { doc, setupOf } from "./support/books.ts";

const fact = (net: number, tax: number) => ({ net, tax, calculated: tax, recoverable: 0, base: net });
const sum = (releases: readonly Release[], figure: (typeof RELEASED_FIGURES)[number]) =>
  releases.reduce((total, one) => total + one[figure], 0);
const inParts = (...amounts: number[]) =>
  amounts.map((amount, index) => ({
    payment: index + 1,
    on: `2026-0${index + 1}-15`,
    amount,
    writtenOff: 0,
  }));

describe("tax that is reported as it is paid", () => {
  /** VAT Notice 731, part payments: the VAT fraction of each instalment. From memory: 1/6 of what is paid at 20 %. */
  test("an invoice of 1,200.00 paid in three parts reports a sixth of each", () => {
    const releases = cashReleases(
      fact(100_000, 20_000),
      120_000,
      inParts(30_000, 30_000, 60_000),
      NOTHING_RELEASED,
      null,
    );
    expect(releases.map(({ net, tax }) => [net, tax])).toEqual([
      [25_000, 5_000],
      [25_000, 5_000],
      [50_000, 10_000],
    ]);
  });

  test("whatever the parts, they sum to the fact to the penny, and no part is off by more than one", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5_000_000 }),
        fc.integer({ min: 0, max: 1_500_000 }),
        fc.array(fc.integer({ min: 1, max: 1_000 }), { minLength: 1, maxLength: 9 }),
        (net, tax, weights) => {
          const gross = net + tax;
          const total = weights.reduce((a, b) => a + b, 0);
          let given = 0;
          const amounts = weights.map((weight, index) => {
            const amount =
              index === weights.length - 1 ? gross - given : Math.floor((gross * weight) / total);
            given += amount;
            return amount;
          });
          const releases = cashReleases(fact(net, tax), gross, inParts(...amounts), NOTHING_RELEASED, null);
          expect([sum(releases, "net"), sum(releases, "tax")]).toEqual([net, tax]);
          for (const { payment, tax: part } of releases) {
            const share = (tax * (amounts[(payment ?? 0) - 1] ?? 0)) / gross;
            expect(Math.abs(part - share)).toBeLessThanOrEqual(1);
          }
        },
      ),
    );
  });

  test("what a sealed period holds stays, and the rest makes up for it", () => {
    const kept = { ...NOTHING_RELEASED, net: 83, tax: 17, calculated: 17, base: 83, settled: 100 };
    const releases = cashReleases(fact(1_000, 200), 1_200, inParts(1_100), kept, null);
    expect([sum(releases, "net") + 83, sum(releases, "tax") + 17]).toEqual([1_000, 200]);
  });

  test("leaving the cash basis reports the unpaid rest once, on that day; later payments report nothing", () => {
    const releases = cashReleases(fact(10_000, 1_500), 11_500, inParts(2_300, 9_200), NOTHING_RELEASED, {
      after: "2026-01-31",
      on: "2026-02-01",
    });
    expect(releases.map(({ payment, on, tax }) => [payment, on, tax])).toEqual([
      [1, "2026-01-15", 300],
      [null, "2026-02-01", 1_200],
    ]);
  });

  /** Tax on the cash basis is tax on the money received: VAT Notice 731, from memory. */
  test("what is let go is never reported: 1,200.00 invoiced, 1,080.00 received, 180.00 due, also when the basis ends", () => {
    const parts = [{ payment: 1, on: "2026-01-15", amount: 108_000, writtenOff: 12_000 }];
    for (const end of [null, { after: "2026-06-01", on: "2026-06-01" }]) {
      const releases = cashReleases(fact(100_000, 20_000), 120_000, parts, NOTHING_RELEASED, end);
      expect([sum(releases, "net"), sum(releases, "tax")]).toEqual([90_000, 18_000]);
    }
  });
});

describe("which facts wait", () => {
  const held = (basis: "cash" | "hybrid" | "accrual", document: ReturnType<typeof doc>) =>
    documentEffect(document, setupOf("gb", { basis })).facts.map((one) => one.held);
  test.each([
    ["cash", doc("sales-invoice", ["S20", "100.00"]), [true]],
    ["hybrid", doc("sales-invoice", ["S20", "100.00"]), [false]],
    ["hybrid", doc("purchase-bill", ["S20", "100.00"]), [true]],
    ["accrual", doc("sales-invoice", ["S20", "100.00"]), [false]],
    ["cash", doc("cash-sale", ["S20", "100.00"]), [false]],
    ["cash", doc("purchase-bill", ["RCS", "100.00"]), [false]],
    ["cash", doc("sales-credit-note", ["S20", "100.00"]), [true]],
  ] as const)("on the %s basis, case %#", (basis, document, expected) => {
    expect(held(basis, document)).toEqual(expected);
  });
});

test("a receipt over two invoices and a credit note, with a difference let go and the rest on account, balances", () => {
  const { accounts } = setupOf("gb");
  const allocation = (
    kind: "sales-invoice" | "sales-credit-note",
    number: string,
    amount: number,
    difference = 0,
  ) => ({
    document: {
      kind,
      number,
      currency: "GBP",
      toPay: amount + difference,
      open: amount + difference,
      baseGross: amount + difference,
      baseSettled: 0,
    },
    amount,
    difference,
    differenceAccount: null,
  });
  const postings = paymentPostings(
    {
      kind: "receipt",
      currency: "GBP",
      amount: 20_000,
      base: 20_000,
      account: null,
      allocations: [
        allocation("sales-invoice", "A1", 12_000),
        allocation("sales-invoice", "A2", 9_990, 10),
        allocation("sales-credit-note", "C1", 2_400),
      ],
    },
    accounts,
    2,
  );
  const by = (account: string) =>
    postings.filter((one) => one.account === account).reduce((total, one) => total + one.amount, 0);
  expect([by("1000"), by("1100"), by("6850")]).toEqual([20_000, -20_010, 10]);
});
