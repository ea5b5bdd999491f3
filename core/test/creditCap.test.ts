import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { setupOf } from "./support/books.ts";

/** A purchase of vehicles: price, tax and what is deducted of it, in cents. */
function bought(
  pack: string,
  code: string,
  amount: string,
  on: string,
  {
    quantity,
    kind = "purchase-bill",
    share,
    levies,
  }: {
    quantity?: string;
    kind?: "purchase-bill" | "purchase-credit-note";
    share?: string;
    levies?: string[];
  } = {},
) {
  const setup = setupOf(pack, levies ? { levies } : {});
  const effect = documentEffect(
    {
      kind,
      date: on,
      prices: "exclusive",
      lines: [
        {
          code,
          amount,
          ...(quantity ? { quantity } : {}),
          ...(share ? { attributes: { recoverable: share } } : {}),
        },
      ],
    },
    setup,
  );
  return { effect, setup, facts: effect.facts.map(({ levy, tax, recoverable }) => [levy, tax, recoverable]) };
}

/** GSTA s 69-10: an eleventh of the car limit, $69,674 in 2025–26: $6,334. ATO, published; from memory. */
describe("Australia, car limit", () => {
  test("the whole GST is on the bill, an eleventh of the limit is deducted, the rest is cost of the car", () => {
    const { effect, facts } = bought("au", "CL", "80000.00", "2026-03-10");
    expect(facts).toEqual([["GST", 8_000_00, 6_334_00]]);
    expect(effect.priced.gross).toBe(88_000_00);
    expect(effect.postings.map(({ amount }) => amount)).toEqual([81_666_00, 6_334_00, -88_000_00]);
  });
  test.each([
    ["2017-08-01", 5_234_64], // 57,581 / 11 = 5,234.636…
    ["2022-07-01", 5_885_55], // 64,741 / 11 = 5,885.545…
    ["2022-06-30", 5_521_18], // 60,733 / 11 = 5,521.18…
  ])("the limit of %s", (on, most) => {
    expect(bought("au", "CL", "90000.00", on).facts).toEqual([["GST", 9_000_00, most]]);
  });
  test("below the limit nothing is cut; two cars have two limits; half of its use is half of what is left", () => {
    expect(bought("au", "CL", "40000.00", "2026-03-10").facts).toEqual([["GST", 4_000_00, 4_000_00]]);
    expect(bought("au", "CL", "160000.00", "2026-03-10", { quantity: "2" }).facts).toEqual([
      ["GST", 16_000_00, 12_668_00],
    ]);
    expect(bought("au", "CL", "80000.00", "2026-03-10", { share: "50" }).facts).toEqual([
      ["GST", 8_000_00, 3_167_00],
    ]);
  });
});

/** ETA 201 with the capital cost limits of Income Tax Regulations 7307, before tax; from memory. */
describe("Canada, passenger vehicles", () => {
  const QUEBEC = { levies: ["GST", "HST", "QST"] };
  test.each([
    ["HON-V", "60000.00", "2026-02-02", {}, [["HST", 7_800_00, 5_070_00]]], // 39,000 × 13 %
    ["HON-V", "60000.00", "2025-02-02", {}, [["HST", 7_800_00, 4_940_00]]], // 38,000 × 13 %
    ["HON-V", "35000.00", "2025-02-02", {}, [["HST", 4_550_00, 4_550_00]]],
    ["HON-Z", "60000.00", "2026-02-02", {}, [["HST", 7_800_00, 7_800_00]]], // below 61,000
    ["HON-Z", "70000.00", "2026-02-02", {}, [["HST", 9_100_00, 7_930_00]]], // 61,000 × 13 %
    [
      "GQ-V",
      "50000.00",
      "2026-02-02",
      QUEBEC,
      [
        ["GST", 2_500_00, 1_950_00],
        ["QST", 4_987_50, 3_890_25],
      ],
    ], // 39,000 × 5 %, × 9.975 %
  ] as const)("%s, %s on %s", (code, amount, on, more, facts) => {
    expect(
      bought("ca", code, amount, on, { ...more } as object).facts.filter(([, tax]) => tax !== 0),
    ).toEqual(facts);
  });
  test("a credit note takes back as much as was deducted", () => {
    const note = { kind: "purchase-credit-note" as const };
    expect(
      bought("ca", "HON-V", "60000.00", "2026-02-02", note).facts.filter(([, tax]) => tax !== 0),
    ).toEqual([["HST", -7_800_00, -5_070_00]]);
  });
  test("the trail says how it was cut", () => {
    const { effect, setup } = bought("ca", "HON-V", "60000.00", "2026-02-02");
    const line = at(effect.printed.lines, 0);
    const index = line.taxes.findIndex(({ tax }) => tax !== 0);
    const words = explainTax(line, index, setup.digits);
    expect(words.slice(-2)).toEqual([
      "deducted on a price of at most 39,000.00 each: 39,000.00 × 13 % is 5,070.00",
      "5,070.00 is deducted; the rest is cost",
    ]);
  });
});
