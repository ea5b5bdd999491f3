import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { instalmentRuleOf } from "@fiscalon/core/model/instalments";
import { instalmentsOf } from "@fiscalon/core/returns/instalments";
import type { InstalmentTold } from "@fiscalon/core/returns/instalments";
import type { InstalmentsView, SettlementView } from "@fiscalon/contract/settlement";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Heads = { head: string; amount: number }[];

function amounts(
  pack: string,
  levies: string[],
  options: Record<string, string>,
  given: { before?: Heads; days?: number; told?: (Partial<InstalmentTold> | undefined)[]; quarter?: boolean },
) {
  const frequency = given.quarter ? "quarterly" : "annual";
  const rule = instalmentRuleOf(found(SHIPPED, ({ id }) => id === pack, pack).instalments, {
    frequency,
    levies,
    options,
  });
  if (!rule) throw new Error(`${pack} has no such rule`);
  const made = instalmentsOf(rule, {
    period: { from: "2025-07-01", to: given.quarter ? "2025-09-30" : "2026-06-30" },
    before: given.before && { heads: given.before, days: given.days ?? (given.quarter ? 91 : 365) },
    told: (given.told ?? []).map((one) => ({ asked: null, estimate: null, ...one })),
    actual: [],
    digits: 2,
  });
  return made.map(({ amount }) => amount);
}
const one = (amount: number, head = "") => [{ head, amount }];

// VAT Notice 732: nine of 10 % or three of 25 % of the year before; 9,600.00 is the fact sheet's example, from memory.
test("GB annual accounting: tenths or quarters of the year before", () => {
  expect(amounts("gb", ["VAT"], { annualPayments: "monthly" }, { before: one(9_600_00) })).toEqual(
    Array(9).fill(960_00),
  );
  expect(amounts("gb", ["VAT"], { annualPayments: "quarterly" }, { before: one(9_600_00) })).toEqual(
    Array(3).fill(2_400_00),
  );
  // The first year is on an estimate; what the authority's notice says wins.
  expect(amounts("gb", ["VAT"], { annualPayments: "quarterly" }, {})).toEqual([null, null, null]);
  const told = [{ estimate: 8_000_01 }, { asked: 1_999_00, estimate: 8_000_01 }];
  expect(amounts("gb", ["VAT"], { annualPayments: "quarterly" }, { told })).toEqual([
    2_000_00,
    1_999_00,
    null,
  ]);
});

// VAT Notice 700/60: each 1/24 of the annual liability, 2,880,000 gives 120,000.00.
test("GB payments on account", () => {
  const told = [{ estimate: 2_880_000_00 }, { estimate: 2_880_000_00 }];
  expect(amounts("gb", ["VAT"], { payments: "on-account" }, { told, quarter: true })).toEqual([
    120_000_00, 120_000_00,
  ]);
});

// ETA 237; 9,840.00 and 8,000.00 as in RC4022's explanation of the base, figures of the fact sheet.
test("CA: a quarter of the lesser of two years, none below 3,000 or in the first year", () => {
  const gst = (given: Parameters<typeof amounts>[3]) => amounts("ca", ["GST", "HST"], {}, given);
  const estimates = (estimate: number) => Array(4).fill({ estimate });
  expect(gst({ before: one(9_840_00), told: estimates(8_000_00) })).toEqual(Array(4).fill(2_000_00));
  expect(gst({ before: one(9_840_00) })).toEqual(Array(4).fill(2_460_00));
  expect(gst({ before: one(2_999_99) })).toEqual([0, 0, 0, 0]);
  expect(gst({ before: one(9_840_00), told: estimates(2_999_99) })).toEqual([0, 0, 0, 0]);
  expect(gst({ told: estimates(8_000_00) })).toEqual([0, 0, 0, 0]);
  // 73 days with 2,000.00 make 10,000.00 in a year.
  expect(gst({ before: one(2_000_00), days: 73 })).toEqual(Array(4).fill(2_500_00));
});

// GSTA s 162-140 as the sheet works it: G21 1,500 twice, then 4,400 × 75 % − 3,000, and up to the year.
test("AU: asked for, varied, never below nil", () => {
  const au = (told: Partial<InstalmentTold>[]) =>
    amounts("au", ["GST"], { gstInstalments: "quarterly" }, { told });
  const asked = [{ asked: 1_500_00 }, { asked: 1_500_00 }];
  expect(au([...asked, { estimate: 4_400_00 }, { estimate: 4_400_00 }])).toEqual([
    1_500_00, 1_500_00, 300_00, 1_100_00,
  ]);
  expect(au([{ estimate: 5_999_99 }])[0]).toBe(1_499_00); // cents are dropped, as on the statement
  expect(au([...asked, { asked: 1_500_00, estimate: 3_900_00 }])).toEqual([1_500_00, 1_500_00, 0, null]);
});

// Circular 143/13/2020, its own examples: 35 % a head of the quarter before; all of the last month where it was monthly.
test("IN: the fixed sum by head", () => {
  const heads = (c: number, s: number, i: number, cess: number) => [
    { head: "IGST", amount: i },
    { head: "CGST", amount: c },
    { head: "SGST", amount: s },
    { head: "CESS", amount: cess },
  ];
  const fixed = { deposits: "fixed", composition: "no" };
  const quarter = { before: heads(100_00, 100_00, 500_00, 50_00), quarter: true };
  expect(amounts("in", ["CGST", "IGST"], fixed, quarter)).toEqual([262_50, 262_50]); // 175 + 35 + 35 + 17.50
  const month = { before: heads(50_00, 50_00, 80_00, 0), days: 30, quarter: true };
  expect(amounts("in", ["CGST", "IGST"], fixed, month)).toEqual([180_00, 180_00]);
  expect(amounts("in", ["CGST", "IGST"], fixed, { ...quarter, before: heads(0, 0, 0, 0) })).toEqual([0, 0]);
});

const AU = {
  pack: "au",
  country: "AU",
  region: "NSW",
  levies: ["GST"],
  frequency: "annual",
  anchor: "2026-06-30",
  number: "51824753556", // the ABN the authority prints as its example
  options: { gstInstalments: "quarterly" },
};

test("a year with instalments: recorded before the return, credited by its closing entry, the same after a book file", async () => {
  const books = await periodBooks(server, AU);
  await books.post(["sales-invoice", "S10", "50000.00"], "2026-03-10");
  await books.post(["purchase-bill", "P10", "900.00"], "2026-03-11");
  const settlement = `${books.registration}/settlements/2026-06-30`;
  const view = () => server.ok<SettlementView>("GET", settlement);
  const say = (no: number, body: object) => server.ok("PUT", `${settlement}/instalments/${no}`, body);
  const pay = (amount: string, date: string) =>
    server.ok("POST", `${settlement}/payments`, { kind: "instalment", date, amount });

  // Registered on 1 January: two quarters are left of the year to June.
  expect((await view()).instalments?.rows.map(({ to, amount }) => [to, amount])).toEqual([
    ["2026-03-31", null],
    ["2026-06-30", null],
  ]);
  await say(1, { asked: "1500.00" });
  await say(2, { asked: "1500.00", estimate: "4000.00", reason: "24" });
  await pay("1500.00", "2026-04-28");
  const { instalments, continuity } = await view();
  expect(instalments?.rows).toMatchObject([
    { due: "2026-04-28", amount: 1_500_00, paid: 1_500_00, late: 0 },
    { varied: 500_00, amount: 500_00, paid: 0, estimate: 4_000_00, reason: "24" },
  ]);
  expect(continuity).toMatchObject([
    { state: "open", paid: 1_500_00, closing: -1_500_00, ledger: -1_500_00 },
  ]);
  await pay("500.00", "2026-07-28");
  expect(await books.boxes("2026-06-30")).toMatchObject({ "1A": "5000", "1B": "90" });

  await books.seal("2026-06-30");
  const late = await server.call("POST", `${settlement}/payments`, {
    kind: "instalment",
    date: "2026-10-01",
    amount: "1.00",
  });
  expect(late.body).toMatchObject({ error: { code: "settle/wrong-state" } });
  await books.settle("2026-06-30");
  expect(await view()).toMatchObject({ net: 4_910_00, outstanding: 2_910_00 });
  expect(await books.left("2026-06-30")).toBe(0);
  expect(at((await view()).continuity, 0)).toMatchObject({ closing: 2_910_00, ledger: 2_910_00 });

  await books.expectSameAfterBookFile();
});

test("CA: what was paid stands in line 110, and the balance is after it", async () => {
  const books = await periodBooks(server, {
    pack: "ca",
    country: "CA",
    region: "ON",
    levies: ["GST", "HST"],
    frequency: "annual",
    anchor: "2026-12-31",
    number: "843162074RT0001", // invented, with its check digit
  });
  await books.post(["sales-invoice", "HON", "40000.00"], "2026-03-10");
  const settlement = `${books.registration}/settlements/2026-12-31`;
  await server.ok("POST", `${settlement}/payments`, {
    kind: "payment",
    date: "2026-04-30",
    amount: "1000.00",
  });
  expect(await books.boxes("2026-12-31")).toMatchObject({
    "109": "5200",
    "110": "1000",
    "112": "1000",
    "113A": "4200",
    "115": "4200",
  });
  const { net, outstanding, payments } = await server.ok<SettlementView>("GET", settlement);
  expect([net, outstanding]).toEqual([5_200_00, 4_200_00]);
  const refusal = await server.call("POST", `${settlement}/payments`, {
    kind: "refund",
    date: "2026-04-30",
    amount: "10.00",
  });
  expect(refusal.status).toBe(409);
  await server.ok("DELETE", `${books.base}/tax-payments/${at(payments, 0).id}`);
  expect(await books.boxes("2026-12-31")).toMatchObject({ "109": "5200", "115": "5200" });
});

test("IN: self-assessed deposits follow the documents of each month", async () => {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: "27",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "27AAPFU0939F1ZV", // the example of the portal's own help
    options: { deposits: "self" },
  });
  await books.post(["sales-invoice", "S18", "10000.00"], "2026-01-10");
  await books.post(["purchase-bill", "P18", "4000.00"], "2026-02-10");
  await books.post(["sales-invoice", "S18", "1000.00"], "2026-02-12");
  const view = await server.ok<SettlementView>("GET", `${books.registration}/settlements/2026-03-31`);
  const { rows } = view.instalments as InstalmentsView;
  expect(rows.map(({ amount, due }) => [amount, due])).toEqual([
    [1_800_00, "2026-02-25"],
    [0, "2026-03-25"], // 990 + 990 less credit 360 + 360 is below what January asked for
  ]);
});
