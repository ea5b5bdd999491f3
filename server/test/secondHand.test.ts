import { afterAll, beforeAll, expect, test } from "vitest";
import { periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const zealand: Country = {
  pack: "nz",
  country: "NZ",
  frequency: "two-monthly",
  anchor: "2026-01-31",
  number: "49091850",
};

// nz.md, section 14, example 3: 1,150.00, of which 460.00 is paid in the period: 3/23 × 460 = 60.00, on the invoice basis.
test("New Zealand: second-hand goods give a credit as far as they are paid, on every basis", async () => {
  const books = await periodBooks(server, zealand);
  const goods = await books.post(["purchase-bill", "P2", "1150.00"], "2026-02-10");
  await books.post(["sales-invoice", "S15", "1000.00"], "2026-02-11");
  expect((await books.boxes("2026-03-31"))["11"]).toBeUndefined();
  await books.pay(goods, "460.00", "2026-03-02");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "11": "460", "12": "60" });
  await books.seal("2026-03-31");
  await books.settle("2026-03-31");
  expect(await books.left("2026-03-31")).toBe(0);
  await books.pay(goods, "690.00", "2026-04-20");
  expect(await books.boxes("2026-05-31")).toMatchObject({ "11": "690", "12": "90" });
  // Leaving the registration, or the basis, deducts nothing that is unpaid.
  const unpaid = await periodBooks(server, { ...zealand, basis: "cash" });
  await unpaid.post(["purchase-bill", "P2", "230.00"], "2026-02-10");
  await unpaid.change({ changes: [{ from: "2026-04-01", basis: "accrual" }] });
  expect(await unpaid.boxes("2026-05-31")).toEqual({});
  await books.expectSameAfterBookFile();
});

// za.md, section 7.3: R(15/115 × price × paid in the period ÷ price), in field 15.
test("South Africa: notional input tax of who is no vendor, to the extent paid", async () => {
  const books = await periodBooks(server, {
    pack: "za",
    country: "ZA",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "4440000000",
  });
  const goods = await books.post(["purchase-bill", "SH", "9200.00"], "2026-01-10");
  await books.pay(goods, "4600.00", "2026-01-20");
  expect(await books.boxes("2026-02-28")).toMatchObject({ "15": "600" });
  await books.pay(goods, "4600.00", "2026-03-20");
  expect(await books.boxes("2026-04-30")).toMatchObject({ "15": "600" });
});
