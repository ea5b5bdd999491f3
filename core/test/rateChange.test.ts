import { describe, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { moveNear, rateChangeNear, rateChangeRule, rateParts } from "@fiscalon/core/tax/rateChange";
import { doc, sale, setupOf } from "./support/books.ts";

const packOf = (id: string) => found(SHIPPED, (pack) => pack.id === id, id);

function partsIn(
  id: string,
  on: string,
  [before, after]: [string, string],
  supply: { amount: number; invoiced: string; delivered: number; paid: number },
  kind: "goods" | "services" = "services",
) {
  const rule = rateChangeRule(packOf(id).rateChanges, kind);
  if (!rule) throw new Error(`${id} has no rule`);
  return rateParts(rule, { schedule: "", on, before, after }, supply).map(({ amount, rateOn }) => [
    amount,
    rateOn < on ? before : after,
  ]);
}

// N 9/2025-CTR: 12 went to 5, 18 or nil, 28 to 18 or 40; 5 and 18 were slabs before and after.
test("India: a supply close to the day may have had a code of another slab", () => {
  const near = (code: string, day: string) => moveNear(code, packOf("in").rateMoves ?? [], day, 31);
  const others = (code: string, day: string) => near(code, day)?.others.map(({ code: other }) => other);
  expect(near("S12", "2025-09-30")).toMatchObject({ on: "2025-09-22", isOld: true });
  expect(others("S12", "2025-09-10")).toEqual(["S5", "S18", "NIL"]);
  expect(others("S5", "2025-09-30")).toEqual(["S12", "S18"]);
  expect(others("S5", "2025-09-10")).toEqual(["S18", "NIL"]);
  expect(others("S40", "2025-09-30")).toEqual(["S28"]);
  expect(near("S12", "2025-11-30")).toBeUndefined();
  expect(near("S3", "2025-09-30")).toBeUndefined();
});

describe("supplies on both sides of a change of rate", () => {
  // E-Tax guide "2024 GST Rate Change", the table of fact sheet sg.md 7.1.
  test("Singapore, 1 January 2024", () => {
    const parts = (invoiced: string, delivered: number, paid: number) =>
      partsIn("sg", "2024-01-01", ["8", "9"], { amount: 1000, invoiced, delivered, paid });
    expect(parts("2023-12-20", 0, 1000)).toEqual([[1000, "8"]]);
    expect(parts("2023-12-20", 1000, 0)).toEqual([[1000, "8"]]);
    // Part paid and part delivered after: the new rate on the lower of 600 and 700.
    expect(parts("2023-12-20", 300, 400)).toEqual([
      [400, "8"],
      [600, "9"],
    ]);
    expect(parts("2024-01-10", 0, 0)).toEqual([[1000, "9"]]);
    expect(parts("2024-01-10", 700, 250)).toEqual([
      [700, "8"],
      [300, "9"],
    ]);
  });

  // CGST s.14, example E16 of the fact sheet: two of three events before the change.
  test("India, services, 22 September 2025", () => {
    const parts = (invoiced: string, delivered: number, paid: number) =>
      partsIn("in", "2025-09-22", ["18", "5"], { amount: 500, invoiced, delivered, paid });
    expect(parts("2025-09-24", 500, 0)).toEqual([[500, "5"]]);
    expect(parts("2025-09-24", 500, 500)).toEqual([[500, "18"]]);
    expect(parts("2025-09-19", 0, 500)).toEqual([[500, "18"]]);
    expect(parts("2025-09-19", 0, 0)).toEqual([[500, "5"]]);
  });

  // UStG § 27(1): only the performance counts. VATA s.88: what was delivered before may keep the old rate.
  test("Germany goes by delivery, Britain lets the supplier choose, Canada goes by what was payable", () => {
    const supply = { amount: 900, invoiced: "2021-01-05", delivered: 300, paid: 900 };
    expect(partsIn("eu-de", "2021-01-01", ["16", "19"], supply)).toEqual([
      [300, "16"],
      [600, "19"],
    ]);
    expect(partsIn("gb", "2021-01-01", ["5", "20"], supply)).toEqual([[900, "5"]]);
    expect(partsIn("ca", "2021-01-01", ["15", "14"], { ...supply, paid: 100 })).toEqual([
      [100, "15"],
      [800, "14"],
    ]);
    expect(rateChangeRule(packOf("gb").rateChanges, "goods")?.election).toBe(true);
  });

  test("more delivered or paid than there is, or less than nothing, is refused", () => {
    const supply = { amount: 900, invoiced: "2021-01-05", delivered: 0, paid: 0 };
    for (const wrong of [{ delivered: 901 }, { paid: -1 }])
      expect(() => partsIn("gb", "2021-01-01", ["5", "20"], { ...supply, ...wrong })).toThrow(FiscalError);
  });

  test("a change is found within its days, and only where the rate becomes another", () => {
    const { codes, schedules } = packOf("gb");
    const hospitality = found(codes, ({ code }) => code === "H", "hospitality");
    expect(rateChangeNear(hospitality, schedules, "2021-10-20", 31)).toMatchObject({
      on: "2021-10-01",
      before: "5",
      after: "12.5",
    });
    expect(rateChangeNear(hospitality, schedules, "2021-11-05", 31)).toBeUndefined();
  });
});

test("a line bears the rate of the day it names and is reported in the period of its tax point", () => {
  const setup = setupOf("sg");
  const old = { rateOn: "2023-12-31", rateReason: "delivered before" };
  const invoice = sale(
    [
      ["S", "700.00", old],
      ["S", "300.00"],
    ] as [string, string, Record<string, string>][],
    {
      date: "2024-01-10",
    },
  );
  const { priced, facts } = documentEffect(invoice, setup);
  expect(priced.lines.map(({ taxes }) => taxes.map(({ rate, tax }) => [rate, tax]))).toEqual([
    [["8", 5600]],
    [["9", 2700]],
  ]);
  expect(facts.map(({ taxPoint, rate }) => [taxPoint, rate])).toEqual([
    ["2024-01-10", "8"],
    ["2024-01-10", "9"],
  ]);
  const wrong = doc("sales-invoice", ["S", "1.00", { rateOn: "2023-13-01" }], {});
  expect(() => documentEffect(wrong, setup)).toThrow(/2023-13-01/);
});

test("a supply whose emirate is not known asks for it, whether its code is typed or found", () => {
  const setup = setupOf("ae");
  const site = { country: "AE", region: null };
  const asksOf = (document: ReturnType<typeof sale>) =>
    documentEffect(document, setup).priced.lines.map(({ asks, code }) => [asks?.about, code?.code]);
  const party = { country: "AE", region: null, registered: true, taxNumber: null, standing: {} };
  expect(asksOf(sale(["S5", "100.00"], { site, party }))).toEqual([["place", "S5"]]);
  expect(asksOf(sale(["S5", "100.00", { emirate: "DU" }], { site, party }))).toEqual([[undefined, "S5"]]);
  expect(asksOf(sale(["Z", "100.00"], { site, party }))).toEqual([[undefined, "Z"]]);
  const found = {
    ...sale(["S5", "100.00"], { site, party }),
    lines: [{ amount: "100.00", taxClass: "standard", supply: "services" as const }],
  };
  expect(asksOf(found)).toEqual([["place", "S5"]]);
});
