import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { paymentBody } from "@fiscalon/contract/payments";
import type { OpenItem } from "@fiscalon/contract/payments";
import { allocationSign } from "@fiscalon/core/ledger/paymentPostings";
import { kindsWhere } from "@fiscalon/core/model/documentKinds";
import {
  blankPayment,
  bodyOfPayment,
  oldestFirst,
  restOf,
  typedAmount,
} from "../src/features/payments/paymentDraft.ts";

const item = (document: number, kind: OpenItem["kind"], open: number): OpenItem =>
  ({
    document,
    kind,
    open,
    number: `D-${document}`,
    date: `2026-05-${String(document).padStart(2, "0")}`,
  }) as OpenItem;
const receipt = (amount: string) => ({ ...blankPayment("receipt", "1000"), date: "2026-05-20", amount });

/** Common practice, no source: money settles the oldest first, credit notes before money. */
describe("the oldest first, as far as the money goes", () => {
  const items = [
    item(1, "sales-invoice", 50_00),
    item(2, "sales-invoice", 70_00),
    item(3, "sales-invoice", 30_00),
  ];
  test.each([
    ["0", {}],
    ["20", { 1: "20.00" }],
    ["50", { 1: "50.00" }],
    ["100", { 1: "50.00", 2: "50.00" }],
    ["200", { 1: "50.00", 2: "70.00", 3: "30.00" }],
  ])("%s", (amount, settled) =>
    expect(
      Object.fromEntries(
        Object.entries(oldestFirst(receipt(amount), items, 2)).map(([id, one]) => [id, one.amount]),
      ),
    ).toEqual(settled),
  );

  test("a credit note pays along, and is used up no further than needed", () => {
    const all = [item(9, "sales-credit-note", 60_00), ...items.slice(0, 1)];
    const settled = oldestFirst(receipt("0"), all, 2);
    expect([settled[1]?.amount, settled[9]?.amount]).toEqual(["50.00", "50.00"]);
  });
});

test("what is typed becomes what is sent: separators gone, empty allocations left out, a difference with its account", () => {
  const draft = {
    ...receipt("1,250.00"),
    number: " R-1 ",
    allocations: {
      4: { amount: "1,200.00", difference: "", differenceAccount: "" },
      5: { amount: " ", difference: "", differenceAccount: "" },
      6: { amount: "40", difference: "−2.00", differenceAccount: "7900" },
    },
  };
  const body = bodyOfPayment(draft);
  expect(paymentBody.validate(body).error).toBeUndefined();
  expect(body).toMatchObject({
    number: "R-1",
    amount: "1250.00",
    allocations: [
      { document: 4, amount: "1200.00" },
      { document: 6, amount: "40", difference: "-2.00", differenceAccount: "7900" },
    ],
  });
  expect(body).not.toHaveProperty("currency");
  expect([typedAmount("1,2", 2), typedAmount("-", 2), typedAmount("", 2)]).toEqual([12_00, 0, 0]);
});

test("any open items and money: never more than is open, never more than there is, and the rest is told", () => {
  const kinds = kindsWhere(({ counter }) => counter === "receivable" || counter === "payable");
  fc.assert(
    fc.property(
      fc.constantFrom("receipt" as const, "payment" as const),
      fc.integer({ min: 0, max: 100_000 }),
      fc.array(fc.tuple(fc.constantFrom(...kinds), fc.integer({ min: 1, max: 50_000 })), { maxLength: 8 }),
      (kind, money, open) => {
        const items = open.map(([of, amount], index) => item(index + 1, of, amount));
        const draft = { ...receipt((money / 100).toFixed(2)), kind };
        const allocations = oldestFirst(draft, items, 2);
        for (const one of items) {
          const settled = typedAmount(allocations[one.document]?.amount ?? "", 2);
          expect(settled).toBeGreaterThanOrEqual(0);
          expect(settled).toBeLessThanOrEqual(one.open);
        }
        const rest = restOf({ ...draft, allocations }, items, 2);
        expect(rest).toBeGreaterThanOrEqual(0);
        const along = items.filter((one) => allocationSign(kind, one.kind) > 0);
        const left = along.some((one) => typedAmount(allocations[one.document]?.amount ?? "", 2) < one.open);
        if (left) expect(rest).toBe(0);
      },
    ),
    { numRuns: 300 },
  );
});
