import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/**
 * Bases that wait for money, how they are joined and left. The figures were worked out by hand from the law named at
 * each, from memory.
 */
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const GB: Omit<Country, "number"> = {
  pack: "gb",
  country: "GB",
  frequency: "quarterly",
  anchor: "2026-03-31",
  basis: "cash",
};
const ACCRUAL = { from: "2026-07-01", frequency: "quarterly", anchor: "2026-03-31", basis: "accrual" };

/** VAT Notice 731 section 6; SI 1995/2518 reg. 61. A last scheme quarter to 30 June 2026. */
describe("leaving cash accounting", () => {
  const lastQuarter = async () => {
    const books = await periodBooks(server, { ...GB, number: nextVatNumber() });
    const paidSale = await books.post(["sales-invoice", "S20", "20000.00"], "2026-04-10");
    const paidBill = await books.post(["purchase-bill", "S20", "10000.00"], "2026-04-11");
    await books.pay(paidSale, "24000.00", "2026-06-30");
    await books.pay(paidBill, "12000.00", "2026-05-02");
    const sale = await books.post(["sales-invoice", "S20", "8000.00"], "2026-06-20");
    const bill = await books.post(["purchase-bill", "S20", "2500.00"], "2026-06-21");
    return { ...books, sale, bill };
  };

  test("at once: everything unpaid goes on the last return of cash accounting", async () => {
    const books = await lastQuarter();
    expect((await books.change({ changes: [{ ...ACCRUAL, leaving: "at-once" }] })).status).toBe(200);
    const june = { "1": "5600", "3": "5600", "4": "2500", "5": "3100", "6": "28000", "7": "12500" };
    expect(await books.boxes("2026-06-30")).toEqual(june);
    await books.pay(books.sale, "9600.00", "2026-08-01");
    // Posted after the change is on record, of the time before it: 100.00 of tax, on the June return too.
    await books.post(["sales-invoice", "S20", "500.00"], "2026-06-29");
    expect(await books.boxes("2026-06-30")).toEqual({
      ...june,
      "1": "5700",
      "3": "5700",
      "5": "3200",
      "6": "28500",
    });
    expect(await books.boxes("2026-09-30")).toEqual({});
    expect(await books.left("2026-06-30")).toBe(0);
    expect(await books.left("2026-09-30")).toBe(0);
  });

  test("over six months: as paid until then, and the rest on the return in which they end", async () => {
    const books = await lastQuarter();
    expect((await books.change({ changes: [{ ...ACCRUAL, leaving: "six-months" }] })).status).toBe(200);
    const june = { "1": "4000", "3": "4000", "4": "2000", "5": "2000", "6": "20000", "7": "10000" };
    expect(await books.boxes("2026-06-30")).toEqual(june);
    await books.pay(books.sale, "7200.00", "2026-08-15");
    await books.post(["sales-invoice", "S20", "100.00"], "2026-09-02"); // 20.00 at its tax point
    expect(await books.boxes("2026-09-30")).toEqual({ "1": "1220", "3": "1220", "5": "1220", "6": "6100" });
    await books.pay(books.sale, "600.00", "2026-12-31"); // 100.00
    expect(await books.boxes("2026-12-31")).toEqual({
      "1": "400",
      "3": "400",
      "4": "500",
      "5": "100",
      "6": "2000",
      "7": "2500",
    });
    await books.pay(books.sale, "1800.00", "2027-01-10");
    expect(await books.boxes("2027-03-31")).toEqual({});
    for (const end of ["2026-06-30", "2026-09-30", "2026-12-31"]) expect(await books.left(end)).toBe(0);
  });

  test("once the rest is sealed the change stays, and everything else can still be changed", async () => {
    const books = await lastQuarter();
    const change = { ...ACCRUAL, leaving: "at-once" };
    expect((await books.change({ changes: [change] })).status).toBe(200);
    const june = await books.boxes("2026-06-30");
    await books.seal("2026-03-31");
    await books.seal("2026-06-30");
    expect((await books.change({ number: null, changes: [change] })).status).toBe(200);
    for (const changes of [[], [{ ...ACCRUAL, leaving: "six-months" }]])
      expectRefusal(await books.change({ changes }), "registration/rest-sealed", "from");
    await books.pay(books.sale, "600.00", "2026-08-15");
    expect([await books.boxes("2026-06-30"), await books.boxes("2026-09-30")]).toEqual([june, {}]);
  });

  test("what is unpaid cannot go on a return that is sealed, and a way nobody knows is refused", async () => {
    const books = await lastQuarter();
    await books.seal("2026-03-31");
    await books.seal("2026-06-30");
    const sealed = await books.change({ changes: [{ ...ACCRUAL, leaving: "at-once" }] });
    expectRefusal(sealed, "registration/rest-sealed", "from");
    const unknown = await books.change({ changes: [{ ...ACCRUAL, leaving: "some-time" }] });
    expectRefusal(unknown, "registration/leaving", "changes[0].leaving");
    expect((await books.change({ changes: [{ ...ACCRUAL, leaving: "six-months" }] })).status).toBe(200);
    expect(await books.boxes("2026-12-31")).toEqual({
      "1": "1600",
      "3": "1600",
      "4": "500",
      "5": "1100",
      "6": "8000",
      "7": "2500",
    });
  });
});

/** Joining: what was reported on its invoice is not reported again when it is paid. VAT Notice 731 section 2. */
test("joining cash accounting counts nothing twice", async () => {
  const books = await periodBooks(server, { ...GB, basis: "accrual", number: nextVatNumber() });
  const before = await books.post(["sales-invoice", "S20", "1000.00"], "2026-06-10");
  await books.change({ changes: [{ ...ACCRUAL, basis: "cash" }] });
  await books.post(["sales-invoice", "S20", "300.00"], "2026-07-10");
  await books.pay(before, "1200.00", "2026-07-20");
  expect(await books.boxes("2026-06-30")).toEqual({ "1": "200", "3": "200", "5": "200", "6": "1000" });
  expect(await books.boxes("2026-09-30")).toEqual({});
});

/** VATCA 2010 s.80 and s.59(2): 1,000 × 23/123 = 186.99; the bill's 115.00 by invoice; 1,460 brings 460.00 − 186.99. */
test("moneys received: sales as the money comes, bills by invoice, goods to the Union at once", async () => {
  const books = await periodBooks(server, {
    pack: "ie",
    country: "IE",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "6388047V",
    basis: "receipts",
  });
  const sale = await books.post(["sales-invoice", "S23", "2000.00"], "2026-01-12");
  await books.post(["purchase-bill", "S23", "500.00"], "2026-01-15");
  await books.post(["sales-invoice", "EUG", "700.00", { with: "FR" }], "2026-01-20");
  await books.pay(sale, "1000.00", "2026-02-03");
  const first = await books.boxes("2026-02-28");
  expect([first["T1"], first["T2"], first["E1"]]).toEqual(["186", "115", "700"]);
  await books.pay(sale, "1460.00", "2026-03-09");
  expect((await books.boxes("2026-04-30"))["T1"]).toBe("273");
  for (const end of ["2026-02-28", "2026-04-30"]) expect(await books.left(end)).toBe(0);
});

/** UStG § 20: output tax on receipt; input tax by invoice; on leaving, old sales stay taxed as the money comes. */
test("receipts in Germany, and what is unpaid when they are left", async () => {
  const books = await periodBooks(server, {
    pack: "eu-de",
    country: "DE",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "DE271828000",
    basis: "receipts",
  });
  const sale = await books.post(["sales-invoice", "S19", "3000.00"], "2026-02-10");
  await books.post(["purchase-bill", "V19", "400.00"], "2026-02-12"); // 76.00
  await books.post(["sales-invoice", "IGL", "900.00", { with: "AT" }], "2026-03-01");
  await books.pay(sale, "1190.00", "2026-03-05"); // 1,000 of net
  expect(await books.boxes("2026-03-31")).toEqual({
    "81": "1000",
    "81.tax": "190",
    "41": "900",
    "66": "76",
    T1: "190",
    T2: "114",
    T3: "114",
    "83": "114",
  });
  await books.change({ changes: [{ ...ACCRUAL, from: "2026-04-01" }] });
  await books.post(["sales-invoice", "S19", "50.00"], "2026-04-02");
  expect(await books.boxes("2026-06-30")).toEqual({
    "81": "50",
    "81.tax": "9.50",
    T1: "9.50",
    T2: "9.50",
    T3: "9.50",
    "83": "9.50",
  });
  await books.pay(sale, "2380.00", "2026-08-05");
  expect(await books.boxes("2026-09-30")).toEqual({
    "81": "2000",
    "81.tax": "380",
    T1: "380",
    T2: "380",
    T3: "380",
    "83": "380",
  });
});

/** GSTA s 19C, GST 103B: debtors 23,000 × 3/23 = 3,000.00 to box 9, creditors 9,200 × 3/23 = 1,200.00 to box 13. */
test("payments basis in New Zealand: debtors and creditors at the change, both ways", async () => {
  const NZ: Country = {
    pack: "nz",
    country: "NZ",
    frequency: "two-monthly",
    anchor: "2026-01-31",
    number: "47203112",
    basis: "cash",
  };
  const CHANGE = { from: "2026-06-01", frequency: "two-monthly", anchor: "2026-01-31" };
  const leaving = await periodBooks(server, NZ);
  const sale = await leaving.post(["sales-invoice", "S15", "30000.00"], "2026-04-12"); // 34,500
  await leaving.post(["purchase-bill", "P15", "8000.00"], "2026-05-02");
  await leaving.pay(sale, "11500.00", "2026-05-20");
  await leaving.change({ changes: [{ ...CHANGE, basis: "accrual" }] });
  const may = await leaving.boxes("2026-05-31");
  expect([may["5"], may["9"], may["11"]]).toEqual(["11500", undefined, undefined]);
  const july = await leaving.boxes("2026-07-31");
  expect([july["5"], july["9"], july["11"], july["13"]]).toEqual([undefined, "3000", undefined, "1200"]);
  await leaving.pay(sale, "23000.00", "2026-06-01");
  expect(await leaving.boxes("2026-07-31")).toEqual(july);
  expect(await leaving.left("2026-07-31")).toBe(0);

  const joining = await periodBooks(server, { ...NZ, basis: "accrual" });
  const invoice = await joining.post(["sales-invoice", "S15", "30000.00"], "2026-04-12");
  const bill = await joining.post(["purchase-bill", "P15", "8000.00"], "2026-05-02");
  await joining.pay(invoice, "11500.00", "2026-05-20");
  await joining.seal("2026-05-31");
  await joining.change({ changes: [{ ...CHANGE, basis: "cash" }] });
  await joining.pay(invoice, "4600.00", "2026-07-07");
  await joining.pay(bill, "9200.00", "2026-07-08");
  const after = await joining.boxes("2026-07-31");
  expect([after["5"], after["9"], after["11"], after["13"]]).toEqual(["4600", "1200", "9200", "3000"]);
  expect(await joining.left("2026-07-31")).toBe(0);
  await joining.pay(invoice, "18400.00", "2026-08-08");
  expect((await joining.boxes("2026-09-30"))["5"]).toBe("18400");
});

/** VAT Act s. 15(2) and (6): debtors 57,500 × 15/115 = 7,500.00, creditors 23,000: 3,000.00; R100,000 waits for nothing. */
test("payments basis in South Africa", async () => {
  const books = await periodBooks(server, {
    pack: "za",
    country: "ZA",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "4440000000",
    basis: "cash",
  });
  await books.post(["sales-invoice", "S15", "50000.00"], "2026-01-12");
  await books.post(["purchase-bill", "P15", "20000.00"], "2026-02-02");
  expect(await books.boxes("2026-02-28")).toEqual({});
  await books.post(["sales-invoice", "S15", "90000.00"], "2026-02-10"); // 103,500: at its tax point
  expect((await books.boxes("2026-02-28"))["1"]).toBe("103500");
  await books.change({
    changes: [{ from: "2026-03-01", frequency: "two-monthly", anchor: "2026-02-28", basis: "accrual" }],
  });
  const boxes = await books.boxes("2026-04-30");
  expect([boxes["1"], boxes["12"], boxes["15"], boxes["18"]]).toEqual([undefined, "7500", undefined, "3000"]);
});
